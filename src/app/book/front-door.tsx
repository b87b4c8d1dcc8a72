"use client";
import { moneyWords } from "@/core/money/amounts";
import { dayWords } from "@/core/time/words";
import { Mark } from "@/ui/arch";
import { changesOf } from "@/core/catalogue/agreement";
import { CrowdNotice } from "@/ui/crowd-notice";
import { DoorLook, doorType } from "@/ui/door-look";
import { imageAddress } from "@/ui/images";
import { ink } from "@/ui/palette";
import { UploadsProvider } from "@/ui/uploads";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import Skeleton from "@mui/material/Skeleton";
import Typography from "@mui/material/Typography";
import dynamic from "next/dynamic";
import { useCallback, useEffect, useRef } from "react";
import { type Draft, type Step, steps } from "./draft";
import { saidOnTop } from "./up-to-date";
import { useBooking, type Visit } from "./use-booking";
import { Answers, Welcome } from "./welcome";
import { Where } from "./where";

// What only later steps need comes when an address is there, so that the first page is light.
const later = {
  what: () => import("./what"),
  when: () => import("./when"),
  who: () => import("./who"),
  pay: () => import("./pay"),
};
const loading = () => <Skeleton variant="rounded" height={240} />;
const Summary = dynamic(() => import("./summary").then((m) => m.Summary));
const HoldLeft = dynamic(() => import("./hold-left").then((m) => m.HoldLeft));
const Changes = dynamic(() => import("@/ui/changes").then((m) => m.Changes));
const What = dynamic(() => later.what().then((m) => m.What), { loading });
const When = dynamic(() => later.when().then((m) => m.When), { loading });
const Who = dynamic(() => later.who().then((m) => m.Who), { loading });
const Pay = dynamic(() => later.pay().then((m) => m.Pay), { loading });

const whenWords = { site: "When shall we come?", ours: "When will you come?", afar: "When shall we call?" };

interface StepButton {
  words: string;
  /** What is missing before it can be pressed, and the entry (a selector) to which a press leads; null where none does. */
  missing: { words: string; at: string | null } | null;
  act: () => void;
}

const press = ({ missing, act }: StepButton): void => {
  if (missing === null) return act();
  if (missing.at) document.querySelector<HTMLElement>(missing.at)?.focus();
};

function missingOfWho(draft: Draft): StepButton["missing"] {
  if (!draft.name.trim()) return { words: "Enter your name", at: "main input[name=name]" };
  if (!draft.mail.trim()) return { words: "Enter your email", at: "main input[name=mail]" };
  return draft.phone.trim() ? null : { words: "Enter your phone number", at: "main input[name=phone]" };
}

/** Where, what, when, who, pay: one question at a time, and a summary that follows. */
export function FrontDoor({ preview = false, ...visit }: Omit<Visit, "preview"> & { preview?: boolean }) {
  const booking = useBooking({ ...visit, preview });
  const { business, draft, ready, set, at, chosen, order, asked, payAll, deposit, problem, tried, go } = booking;
  const here = steps.indexOf(draft.step);
  const title = useRef<HTMLHeadingElement>(null);
  const hasAddress = draft.address !== null;
  useEffect(() => {
    if (hasAddress) for (const load of Object.values(later)) void load();
  }, [hasAddress]);

  useEffect(() => {
    if (!ready) return;
    title.current?.focus();
    window.scrollTo(0, 0);
  }, [draft.step, ready]);

  // What is wrong is brought into view, wherever somebody has scrolled to.
  useEffect(() => {
    if (tried || problem)
      document.querySelector("main [role=alert], main .Mui-error")?.scrollIntoView({ block: "center" });
  }, [tried, problem]);

  const { hold } = draft;
  // Its key stays: by it, whoever presses twice books once.
  const onLapsed = useCallback(() => hold && set({ hold: { ...hold, until: null } }), [set, hold]);

  const open = order?.items.some((item) => Object.keys(item.problems).length > 0) ?? false;
  const sending = booking.uploads.sending();
  /** What each button does; or what is missing before it can, and where that is. */
  const buttons: Record<Step, StepButton> = {
    where: {
      words: "Continue",
      missing: !draft.address
        ? { words: "Enter your address", at: "main input" }
        : at && at.zone === null && at.services.length === 0
          ? { words: "Nothing can be booked here", at: null }
          : at
            ? null
            : { words: "One moment…", at: null },
      act: () => go("what"),
    },
    what: {
      words: "Choose a time",
      missing: chosen.length > 0 ? null : { words: "Choose what you need", at: null },
      act: () => (open ? booking.somethingMissing() : go("when")),
    },
    when: {
      words: draft.offer ? `Choose ${dayWords(draft.offer.date).split(" ")[0]} ${draft.offer.words}` : "",
      missing: draft.offer ? null : { words: "Choose a time", at: null },
      act: () => void booking.keep(),
    },
    who: {
      words: "Continue",
      missing: missingOfWho(draft),
      act: () => void booking.checkWho(),
    },
    pay: {
      words: deposit ? `Pay ${moneyWords(deposit, business.currency)} and book` : "Book",
      missing:
        deposit && !booking.cardToken
          ? { words: `Enter a card to pay ${moneyWords(deposit, business.currency)}`, at: "main iframe[title=Card]" }
          : sending > 0
            ? { words: sending === 1 ? "A photo is on its way…" : `${sending} photos are on their way…`, at: null }
            : null,
      act: () => void booking.book(),
    },
  };
  const button = buttons[draft.step];
  const said = problem ? saidOnTop(problem, draft.step) : [];
  const changes = changesOf(problem);
  const titles: Record<Step, string> = {
    where: "What’s the address?",
    what: "What can we do for you?",
    when: whenWords[chosen[0]?.service.workPlace ?? "site"],
    who: "Your details",
    pay: payAll ? "Pay in full" : deposit ? "Pay the deposit" : "Check and book",
  };

  return (
    <DoorLook look={business.look}>
      <UploadsProvider uploads={booking.uploads}>
        <Box
          component="main"
          sx={{
            maxWidth: 620,
            mx: "auto",
            minHeight: "var(--page)",
            display: "flex",
            flexDirection: "column",
            ...doorType,
          }}
        >
          <Box sx={{ flex: 1, px: 5, pt: 4, pb: 6 }}>
            <Box component="header" sx={{ display: "flex", alignItems: "center", gap: 3, mb: 4 }}>
              {business.mark ? (
                <Box
                  component="img"
                  src={imageAddress(business.mark)}
                  alt=""
                  sx={{ height: 34, maxWidth: 110, objectFit: "contain" }}
                />
              ) : (
                <Mark size={26} />
              )}
              <Box className="titles" sx={{ fontWeight: 650 }}>
                {business.name}
              </Box>
            </Box>
            <Box component="nav" aria-label="Steps" sx={{ display: "flex", flexWrap: "wrap", gap: 2, mb: 5 }}>
              {steps.map((step, i) => (
                <ButtonBase
                  key={step}
                  disabled={i >= here}
                  onClick={() => go(step)}
                  aria-current={i === here ? "step" : undefined}
                  sx={{
                    flex: "1 0 48px",
                    height: 34,
                    borderRadius: "18px 18px 4px 4px",
                    fontSize: 14.5,
                    fontWeight: i === here ? 700 : 400,
                    border: `1.5px solid ${i <= here ? ink.accent : ink.line}`,
                    bgcolor: i < here ? ink.accent : "#fff",
                    color: i < here ? ink.paper : i === here ? ink.ink : ink.ash,
                  }}
                >
                  {step}
                </ButtonBase>
              ))}
            </Box>
            <Typography variant="h1" ref={title} tabIndex={-1} sx={{ outline: "none !important", mb: 2 }}>
              {titles[draft.step]}
            </Typography>
            <CrowdNotice />
            {changes.length > 0 ? (
              <Changes changes={changes} />
            ) : (
              said.length > 0 && (
                <Alert
                  severity="warning"
                  role="alert"
                  sx={{ mb: 3, fontSize: 16 }}
                  action={
                    booking.again && (
                      <Button color="inherit" onClick={booking.again}>
                        Try again
                      </Button>
                    )
                  }
                >
                  {said.map((sentence) => (
                    <div key={sentence}>{sentence}</div>
                  ))}
                </Alert>
              )
            )}
            {booking.changed.length > 0 && (
              <Alert severity="info" role="status" sx={{ mb: 3, fontSize: 16 }}>
                {booking.changed.map((sentence) => (
                  <div key={sentence}>{sentence}</div>
                ))}
              </Alert>
            )}
            {draft.step === "where" && <Welcome business={business} />}
            {draft.step === "where" && (
              <Where
                draft={draft}
                at={at}
                problem={booking.atProblem}
                business={business}
                onAddress={(address) => set({ address, offer: null, items: address ? draft.items : [] })}
                onType={set}
              />
            )}
            {draft.step === "where" && <Answers business={business} />}
            {draft.step === "what" && at && (
              <What
                draft={draft}
                chosen={chosen}
                at={at}
                order={order}
                tried={tried > 0}
                business={business}
                wrong={booking.wrong}
                onType={(part) =>
                  set((now) => {
                    const changed = typeof part === "function" ? part(now) : part;
                    return {
                      ...changed,
                      ...(changed.items || changed.technicianId !== undefined ? { offer: null } : {}),
                    };
                  })
                }
              />
            )}
            {draft.step === "when" && asked && (
              <When
                key={booking.lost}
                asked={asked}
                draft={draft}
                chosen={chosen}
                business={business}
                onChoose={(offer) => {
                  booking.forgetProblem();
                  set({ offer });
                }}
                onType={set}
              />
            )}
            {draft.step === "who" && (
              <Who
                draft={draft}
                business={business}
                wrong={booking.wrong}
                onType={set}
                onEnter={() => press(buttons.who)}
              />
            )}
            {draft.step === "pay" && order && draft.offer && (
              <Pay
                draft={draft}
                chosen={chosen}
                order={order}
                points={booking.points}
                payAll={payAll}
                agreement={booking.agreement!}
                business={business}
                wrong={booking.wrong}
                onType={set}
                onToken={booking.setCardToken}
              />
            )}
          </Box>
          <Summary
            chosen={chosen}
            order={order}
            offer={draft.offer}
            kept={hold && here >= 3 && <HoldLeft hold={hold} minutes={business.holdMinutes} onLapsed={onLapsed} />}
            business={business}
            always={here >= 3}
            onBack={here > 0 ? () => go(steps[here - 1]!) : null}
            button={{
              words: button.missing?.words ?? button.words,
              ready: button.missing === null || button.missing.at !== null,
              act: () => press(button),
            }}
            busy={!ready || booking.busy}
            note={preview ? "A preview: nothing is kept or booked." : null}
          />
        </Box>
      </UploadsProvider>
    </DoorLook>
  );
}
