"use client";
import { clock, dayShort, windowWords } from "@/core/time/words";
import { Code, stateGlyphs } from "@/ui/arch";
import { LinkBox } from "@/ui/link-box";
import { useLive } from "@/ui/live";
import { hues, ink } from "@/ui/palette";
import { upper } from "@/ui/rule-editor";
import { Fact, SheetSection, SideSheet } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Skeleton from "@mui/material/Skeleton";
import Stack from "@mui/material/Stack";
import { useState } from "react";
import { useOffice } from "../office-context";
import { closedWords } from "./data";
import { ChangeForm } from "./change-form";
import { DateRow } from "./date-row";
import { PauseForm } from "./pause-form";

/** One repeat: its sentence, its dates and what becomes of them, and what can be changed. */
export function RepeatSheet({ repeatId, onClose }: { repeatId: number; onClose: () => void }) {
  const { data: repeat, problem } = useLive("repeat", { repeatId });
  const { person } = useOffice();
  const [doing, setDoing] = useState<"change" | "pause" | null>(null);
  const sayWithUndo = useUndo();
  const endPause = useChange("end-pause");
  const end = useChange("end-repeat");
  const resume = useChange("resume-repeat");
  if (!repeat)
    return (
      <SideSheet title={problem ? "Repeat" : "…"} onClose={onClose} width={440}>
        {problem ? <Alert severity="error">{problem.sentence}</Alert> : <Skeleton variant="rounded" height={240} />}
      </SideSheet>
    );
  const mayChange = person.permissions.includes("board.change") && repeat.state === "active";
  const endIt = async () => {
    if (await end.send({ repeatId }))
      sayWithUndo(`${repeat.customer.name}’s repeat is ended; promised visits stay`, () => resume.send({ repeatId }));
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
        {repeat.state === "ended" && " Ended."}
      </Box>
      <Fact name="Customer">
        <LinkBox href={`/customers/${repeat.customer.id}`} sx={{ color: ink.lake }}>
          {repeat.customer.name}
        </LinkBox>
        , {repeat.site}
      </Fact>
      <Fact name="Closed days">{closedWords[repeat.onClosed]}</Fact>
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
        <Stack direction="row" spacing={2} sx={{ mt: 3 }}>
          <Button
            variant="contained"
            aria-expanded={doing === "change"}
            onClick={() => setDoing(doing === "change" ? null : "change")}
          >
            Change…
          </Button>
          <Button
            variant="outlined"
            aria-expanded={doing === "pause"}
            onClick={() => setDoing(doing === "pause" ? null : "pause")}
          >
            Pause…
          </Button>
          <Button variant="outlined" color="error" onClick={() => void endIt()}>
            End
          </Button>
        </Stack>
      )}
      {person.permissions.includes("board.change") && repeat.state === "ended" && (
        <Button variant="outlined" sx={{ mt: 3 }} onClick={() => void resume.send({ repeatId })}>
          Resume
        </Button>
      )}
      {doing === "change" && <ChangeForm repeat={repeat} onDone={() => setDoing(null)} />}
      {doing === "pause" && <PauseForm repeat={repeat} onDone={() => setDoing(null)} />}
      {repeat.coming.length > 0 && (
        <SheetSection title="Dates">
          {repeat.coming.map((date) => (
            <DateRow key={date.date} repeat={repeat} date={date} mayChange={mayChange} />
          ))}
        </SheetSection>
      )}
      {repeat.past.length > 0 && (
        <SheetSection title="Until now">
          {repeat.past.map((visit) => (
            <Fact key={visit.id} name={dayShort(visit.date)}>
              <LinkBox href={`/board?date=${visit.date}&visit=${visit.id}`} sx={{ color: ink.lake }}>
                {stateGlyphs[visit.state]} {visit.state}
              </LinkBox>
              {visit.technician && `, ${visit.technician}`}, {clock(visit.window[0])}
            </Fact>
          ))}
        </SheetSection>
      )}
    </SideSheet>
  );
}
