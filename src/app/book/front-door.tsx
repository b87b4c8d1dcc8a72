"use client";
import { ask, change } from "@/api/client";
import { mayPayAll, paidNow } from "@/core/catalogue/baskets";
import { moneyWords } from "@/core/money/amounts";
import type { Problem } from "@/core/problems";
import { dayWords } from "@/core/time/words";
import { Mark } from "@/ui/arch";
import { DoorLook, doorType } from "@/ui/door-look";
import { imageAddress } from "@/ui/image-field";
import { ink } from "@/ui/palette";
import { useView } from "@/ui/use-view";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Skeleton from "@mui/material/Skeleton";
import Typography from "@mui/material/Typography";
import dynamic from "next/dynamic";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Business } from "./data";
import { chosenOf, priceOf, type Step, steps, useDraft } from "./draft";
import { HoldLeft } from "./hold-left";
import { Summary } from "./summary";
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
const What = dynamic(() => later.what().then((m) => m.What), { loading });
const When = dynamic(() => later.when().then((m) => m.When), { loading });
const Who = dynamic(() => later.who().then((m) => m.Who), { loading });
const Pay = dynamic(() => later.pay().then((m) => m.Pay), { loading });

/** Where, what, when, who, pay: one question at a time, and a summary that follows. */
export function FrontDoor({
  business,
  slug,
  source,
  preview = false,
}: {
  business: Business;
  slug: string | null;
  source: string | null;
  preview?: boolean;
}) {
  const { draft, ready, change: set, forget } = useDraft(preview);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const [lost, setLost] = useState(0);
  /** How often somebody has tried to go on with something missing. */
  const [tried, setTried] = useState(0);
  const [cardToken, setCardToken] = useState<string | null>(null);
  const { data: at, problem: atProblem } = useView(
    "services-at",
    draft.address ? { addressId: draft.address.id, slug } : null,
  );
  const title = useRef<HTMLHeadingElement>(null);
  const hasAddress = draft.address !== null;
  useEffect(() => {
    if (hasAddress) for (const load of Object.values(later)) void load();
  }, [hasAddress]);

  const chosen = chosenOf(draft, at);
  const order = priceOf(chosen, at, {
    coupon: draft.coupon,
    onOurWayBp: draft.offer?.onOurWay ? business.onOurWayBp : 0,
  });
  const asked =
    draft.address && chosen.length
      ? { addressId: draft.address.id, items: draft.items, technicianId: draft.technicianId }
      : null;
  const go = (step: Step) => {
    setProblem(null);
    set({ step });
  };
  const here = steps.indexOf(draft.step);

  // The link somebody came by first is where they come from.
  useEffect(() => {
    if (ready && source && !draft.source) set({ source });
  }, [ready, source, draft.source, set]);
  // Whoever comes by a service's own link has chosen it already.
  const linked = at?.services.find((s) => slug !== null && s.slug === slug)?.id ?? null;
  useEffect(() => {
    if (linked !== null && draft.items.length === 0)
      set({ items: [{ serviceId: linked, quantity: 1, answers: {}, extras: [] }] });
  }, [linked, draft.items.length, set]);

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

  const keep = async () => {
    if (!asked || !draft.offer) return;
    if (preview) return set({ step: "who" });
    setBusy(true);
    const { date, from, to } = draft.offer;
    const result = await change("hold-offer", {
      ...asked,
      date,
      from,
      to,
      ...(draft.hold && { instead: draft.hold.key }),
    });
    setBusy(false);
    if (result.ok) {
      const { onOurWay, ...hold } = result.value;
      setProblem(null);
      return set({ hold, offer: { ...draft.offer, onOurWay }, step: "who" });
    }
    setProblem(result.problem);
    if (result.problem.code === "window-gone") backToWindows();
  };

  /** The window is gone: what is free now is asked again. */
  const backToWindows = () => {
    setLost((n) => n + 1);
    set({ step: "when", offer: null, hold: null });
  };

  const { hold } = draft;
  // Its key stays: by it, whoever presses twice books once.
  const onLapsed = useCallback(() => hold && set({ hold: { ...hold, until: null } }), [set, hold]);

  /** What cannot be right is said before anybody types a card. */
  const checkWho = async () => {
    setBusy(true);
    const { name, mail, phone, reminders, offers, fields } = draft;
    const result = await ask("check-booker", { customer: { name, mail, phone, reminders, offers }, fields });
    setBusy(false);
    if (result.ok) go("pay");
    else setProblem(result.problem);
  };

  const book = async () => {
    if (!asked || !draft.offer || preview) return;
    setBusy(true);
    const { date, from, to } = draft.offer;
    const { name, mail, phone, reminders, offers, note, photos, fields, repeat, atDoor } = draft;
    const result = await change("book", {
      ...asked,
      date,
      from,
      to,
      note,
      photos,
      fields,
      repeat,
      atDoor,
      payAll,
      source: draft.source,
      customer: { name, mail, phone, reminders, offers },
      ...(draft.hold && { hold: draft.hold.key }),
      ...(draft.coupon && { coupon: draft.coupon.code }),
      ...(order && { shownMinor: order.totalMinor }),
      ...(deposit > 0 && cardToken && { cardToken, keepCard: draft.keepCard }),
    });
    if (result.ok) {
      forget();
      // The owner's own address takes the place of the page that this may be a frame of.
      if (business.doneAddress && window.parent !== window && window.open(business.doneAddress, "_top")) return;
      return window.location.assign(business.doneAddress || `/my/${result.value.link}?booked`);
    }
    setBusy(false);
    setProblem(result.problem);
    const wrongAt = (...starts: string[]) =>
      Object.keys(result.problem.fields ?? {}).some((field) => starts.some((start) => field.startsWith(start)));
    if (result.problem.code === "window-gone" || result.problem.code === "price-changed") backToWindows();
    else if (wrongAt("/items", "/note", "/photos", "/repeat")) set({ step: "what" });
    else if (wrongAt("/customer", "/fields")) set({ step: "who" });
  };

  const wrong = (pointer: string) => problem?.fields?.[pointer];
  const payAll = draft.payAll && mayPayAll(chosen);
  const deposit = order ? paidNow(order, payAll) : 0;
  const open = order?.items.some((item) => Object.keys(item.problems).length > 0) ?? false;
  const buttons: Record<Step, { words: string; ready: boolean; act: () => void }> = {
    where: { words: "Go on", ready: !!at?.zone, act: () => go("what") },
    what: { words: "Choose a time", ready: chosen.length > 0, act: () => (open ? setTried(tried + 1) : go("when")) },
    when: {
      words: draft.offer
        ? `Keep ${draft.offer.words} on ${dayWords(draft.offer.date).split(" ")[0]}`
        : "Choose a window",
      ready: !!draft.offer,
      act: () => void keep(),
    },
    who: {
      words: "Go on",
      ready: !!(draft.name.trim() && draft.mail.trim() && draft.phone.trim()),
      act: () => void checkWho(),
    },
    pay: {
      words: deposit ? `Pay ${moneyWords(deposit, business.currency)} and book` : "Book",
      ready: !deposit || !!cardToken,
      act: () => void book(),
    },
  };
  const titles: Record<Step, string> = {
    where: "Where shall we come?",
    what: "What can we do for you?",
    when: "When shall we come?",
    who: "Who are you?",
    pay: payAll ? "Paying now" : deposit ? "The deposit" : "Is everything right?",
  };

  return (
    <DoorLook look={business.look}>
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
          <Box component="nav" aria-label="Steps" sx={{ display: "flex", gap: 2, mb: 5 }}>
            {steps.map((step, i) => (
              <ButtonBase
                key={step}
                disabled={i >= here}
                onClick={() => go(step)}
                aria-current={i === here ? "step" : undefined}
                sx={{
                  flex: 1,
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
          {problem && !problem.fields && (
            <Alert severity="warning" role="alert" sx={{ mb: 3, fontSize: 16 }}>
              {problem.sentence}
            </Alert>
          )}
          {draft.step === "where" && <Welcome business={business} />}
          {draft.step === "where" && (
            <Where
              draft={draft}
              at={at}
              problem={atProblem}
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
              wrong={wrong}
              onType={(part) =>
                set({ ...part, ...(part.items || part.technicianId !== undefined ? { offer: null } : {}) })
              }
            />
          )}
          {draft.step === "when" && asked && (
            <When
              key={lost}
              asked={asked}
              draft={draft}
              chosen={chosen}
              business={business}
              onChoose={(offer) => {
                setProblem(null);
                set({ offer });
              }}
              onType={set}
            />
          )}
          {draft.step === "who" && <Who draft={draft} business={business} wrong={wrong} onType={set} />}
          {draft.step === "pay" && order && draft.offer && (
            <Pay
              draft={draft}
              chosen={chosen}
              order={order}
              payAll={payAll}
              business={business}
              wrong={wrong}
              onType={set}
              onToken={setCardToken}
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
          button={buttons[draft.step]}
          busy={!ready || busy}
          note={preview ? "A preview: nothing is kept or booked." : null}
        />
      </Box>
    </DoorLook>
  );
}
