"use client";
import { ask } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { actorInWords, operationWords } from "@/core/records/changes";
import { comesWords } from "@/core/repeats/flexible";
import { priceTermsWords } from "@/core/repeats/price";
import { localOf } from "@/core/time/local";
import { clock, dayShort, durationWords, windowWords } from "@/core/time/words";
import { Code, stateGlyphs } from "@/ui/arch";
import { LinkBox } from "@/ui/link-box";
import { useLive } from "@/ui/live";
import { MessageList } from "@/ui/message-list";
import { hues, ink } from "@/ui/palette";
import { upper } from "@/core/words";
import { Fact, SheetSection, SideSheet } from "@/ui/side-sheet";
import { download } from "@/ui/download";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Skeleton from "@mui/material/Skeleton";
import Stack from "@mui/material/Stack";
import { useSnackbar } from "notistack";
import { useState } from "react";
import { useOffice } from "../office-context";
import { closedWords } from "./data";
import { ChangeForm } from "./change-form";
import { AskSection } from "./ask-section";
import { DateRow } from "./date-row";
import { EndForm } from "./end-form";
import { PauseForm } from "./pause-form";
import { PriceForm } from "./price-form";
import { WaysForm } from "./ways-form";
import { WorkForm } from "./work-form";
import { YearStrip } from "./year-strip";

type Doing = "change" | "work" | "ways" | "price" | "pause" | "end";
const acts: { what: Doing; words: string; variant?: "contained"; color?: "error" }[] = [
  { what: "change", words: "Change…", variant: "contained" },
  { what: "work", words: "Work…" },
  { what: "ways", words: "How it comes…" },
  { what: "price", words: "Price…" },
  { what: "pause", words: "Pause…" },
  { what: "end", words: "End…", color: "error" },
];

/** One repeat: its sentence, its dates and what becomes of them, and what can be changed. */
export function RepeatSheet({ repeatId, onClose }: { repeatId: number; onClose: () => void }) {
  const { data: repeat, problem } = useLive("repeat", { repeatId });
  const { person } = useOffice();
  const [doing, setDoing] = useState<Doing | null>(null);
  const { enqueueSnackbar } = useSnackbar();
  const endPause = useChange("end-pause");
  const resume = useChange("resume-repeat");
  if (!repeat)
    return (
      <SideSheet title={problem ? "Repeat" : "…"} onClose={onClose} width={440}>
        {problem ? <Alert severity="error">{problem.sentence}</Alert> : <Skeleton variant="rounded" height={240} />}
      </SideSheet>
    );
  const mayChange = person.permissions.includes("board.change") && repeat.state === "active";
  const toggle = (what: Doing) => setDoing(doing === what ? null : what);
  const close = () => setDoing(null);
  const saveCalendar = async () => {
    const file = await ask("repeat-calendar", { repeatId });
    if (file.ok) download(`${repeat.customer.name}.ics`, "text/calendar", file.value);
    else enqueueSnackbar(file.problem.sentence, { variant: "error" });
  };
  return (
    <SideSheet
      title={
        <>
          <Code code={repeat.code} colour={hues[repeat.hue]!} /> {repeat.service}
        </>
      }
      onClose={onClose}
      width={440}
    >
      <Box className="titles" sx={{ fontSize: 20, fontWeight: 700, lineHeight: 1.35, mb: 3 }}>
        {upper(repeat.words)}, {windowWords(repeat.fromMinute, repeat.toMinute)},{" "}
        {repeat.technician ? `by ${repeat.technician} if they can` : "by whoever is near"}.
        {repeat.state === "ended" && ` Ended.${repeat.endReason && ` ${repeat.endReason}.`}`}
      </Box>
      <Fact name="Customer">
        <LinkBox href={`/customers/${repeat.customer.id}`} sx={{ color: ink.lake }}>
          {repeat.customer.name}
        </LinkBox>
        , {repeat.site}
      </Fact>
      <Fact name="Work">
        {repeat.workWords}, {durationWords(repeat.minutes)}
      </Fact>
      {repeat.together.length > 0 && (
        <Fact name="Agreed with">
          {repeat.together.map(({ id, site }, i) => (
            <span key={id}>
              {i > 0 && "; "}
              <LinkBox href={`/repeats?open=${id}`} sx={{ color: ink.lake }}>
                {site}
              </LinkBox>
            </span>
          ))}
        </Fact>
      )}
      <Fact name="It comes">
        {comesWords[repeat.comes]}
        {repeat.comes === "flexible" && (repeat.leewayDays ? `, ${repeat.leewayDays} days around it` : ", in its week")}
        {repeat.counted === "done" && "; counted from the last visit that was done"}
        {repeat.comes !== "ask" && `; promised ${repeat.promisedAhead} days before`}
      </Fact>
      <Fact name="Price">
        {repeat.price.per === "catalogue"
          ? `${moneyWords(repeat.valueMinor, repeat.currency)}, by the catalogue`
          : priceTermsWords(repeat.price, repeat.currency)}
        {repeat.review &&
          `; ${repeat.review.byBp / 100}% more from ${dayShort(repeat.review.date)} ${repeat.review.date.slice(0, 4)}, ${repeat.reviewTold ? "told" : "not told yet"}`}
      </Fact>
      <Fact name="Closed days">{closedWords[repeat.onClosed]}</Fact>
      {repeat.after && (
        <Fact name="After">
          <LinkBox href={`/board?date=${repeat.after.date}&visit=${repeat.after.id}`} sx={{ color: ink.lake }}>
            the visit of {dayShort(repeat.after.date)} {repeat.after.date.slice(0, 4)}
          </LinkBox>
        </Fact>
      )}
      {repeat.before.map((terms) => (
        <Fact key={terms.until} name="Before">
          {terms.words}, up to {dayShort(terms.until)}
        </Fact>
      ))}
      {repeat.pauses.map((pause) => (
        <Fact key={pause.id} name="Pause">
          {dayShort(pause.first)} to {dayShort(pause.last)}{" "}
          {mayChange && (
            <Button size="small" onClick={() => void endPause.send({ repeatId, pauseId: pause.id })}>
              End the pause
            </Button>
          )}
        </Fact>
      ))}
      {mayChange && (
        <Stack direction="row" sx={{ mt: 3, gap: 2, flexWrap: "wrap" }}>
          {acts.map(({ what, words, ...look }) => (
            <Button key={what} variant="outlined" aria-expanded={doing === what} onClick={() => toggle(what)} {...look}>
              {words}
            </Button>
          ))}
        </Stack>
      )}
      {person.permissions.includes("board.change") && repeat.state === "ended" && (
        <Button variant="outlined" sx={{ mt: 3 }} onClick={() => void resume.send({ repeatId })}>
          Resume
        </Button>
      )}
      {doing === "change" && <ChangeForm repeat={repeat} onDone={close} />}
      {doing === "work" && <WorkForm repeat={repeat} onDone={close} />}
      {doing === "ways" && <WaysForm repeat={repeat} onDone={close} />}
      {doing === "price" && <PriceForm repeat={repeat} onDone={close} />}
      {doing === "pause" && <PauseForm repeat={repeat} onDone={close} />}
      {doing === "end" && <EndForm repeat={repeat} onDone={close} />}
      <AskSection repeat={repeat} mayChange={mayChange} />
      <SheetSection title="The year behind, and the year ahead">
        <YearStrip marks={repeat.strip} today={repeat.today} width={400} />
      </SheetSection>
      {repeat.coming.length > 0 && (
        <SheetSection title="Dates">
          {repeat.coming.map((date) => (
            <DateRow key={date.date} repeat={repeat} date={date} mayChange={mayChange} />
          ))}
        </SheetSection>
      )}
      <Button size="small" onClick={() => void saveCalendar()}>
        As a calendar file
      </Button>
      {repeat.past.length > 0 && (
        <SheetSection title="Until now">
          {repeat.past.map((visit) => (
            <Fact key={visit.id} name={dayShort(visit.day)}>
              <LinkBox href={`/board?date=${visit.day}&visit=${visit.id}`} sx={{ color: ink.lake }}>
                {stateGlyphs[visit.state]} {visit.state}
              </LinkBox>
              {visit.technician && `, ${visit.technician}`}, {clock(visit.window[0])}
            </Fact>
          ))}
        </SheetSection>
      )}
      {repeat.messages.length > 0 && (
        <SheetSection title="What they were told">
          <MessageList messages={repeat.messages} />
        </SheetSection>
      )}
      <SheetSection title="Who did what">
        {repeat.history.map((h, i) => {
          const { date, minute } = localOf(Math.floor(h.at / 60_000), repeat.timeZone);
          return (
            <Fact key={i} name={`${dayShort(date).slice(4)} ${clock(minute)}`}>
              {operationWords(h.operation)}, {actorInWords(h.actor)}
            </Fact>
          );
        })}
      </SheetSection>
    </SideSheet>
  );
}
