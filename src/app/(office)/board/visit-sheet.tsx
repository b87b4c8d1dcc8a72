"use client";
import { actorInWords, operationWords } from "@/core/records/changes";
import { moneyWords } from "@/core/money/amounts";
import { localOf } from "@/core/time/local";
import { windowIn } from "@/core/time/local-words";
import { clock, dayShort, dayWords, durationWords, windowWords } from "@/core/time/words";
import { visitStates } from "@/core/visits/states";
import { Code, VisitState } from "@/ui/arch";
import { LinkBox } from "@/ui/link-box";
import { useLive } from "@/ui/live";
import { MessageList } from "@/ui/message-list";
import { hues, ink } from "@/ui/palette";
import { Photos } from "@/ui/photos";
import { AgainField } from "@/ui/again-field";
import { Fact, SheetSection, SideSheet } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Skeleton from "@mui/material/Skeleton";
import { useState } from "react";
import { useOffice } from "../office-context";
import { Cancel } from "./cancel-visit";
import { LinkSection } from "./customers-link";
import { RunningLate, TeamNotes } from "./late-and-notes";
import type { VisitDetails } from "./data";
import { MoveForm } from "./move-form";
import { RepeatForm } from "./repeat-form";
import { Steps } from "./visit-steps";
import { WhoComes } from "./who-comes";

interface VisitSheetProps {
  visitId: number;
  onClose: () => void;
  /** Another one who comes at the same time. */
  onOpen: (visitId: number) => void;
}

export function VisitSheet({ visitId, onClose, onOpen }: VisitSheetProps) {
  const { data: visit, problem } = useLive("visit-sheet", { visitId });
  const { person } = useOffice();
  const mayChange = person.permissions.includes("board.change");
  const [ticks, setTicks] = useState<string[] | null>(null);
  const ticked = ticks ?? visit?.checklist.filter((item) => item.done).map((item) => item.id) ?? [];

  if (!visit)
    return (
      <SideSheet title={problem ? "Visit" : "…"} onClose={onClose}>
        {problem ? <Alert severity="error">{problem.sentence}</Alert> : <Skeleton variant="rounded" height={240} />}
      </SideSheet>
    );
  return (
    <SideSheet
      title={
        <>
          <Code code={visit.code} colour={hues[visit.hue]!} /> {visit.service}
        </>
      }
      onClose={onClose}
    >
      <Promise visit={visit} />
      <Fact name="State">
        <VisitState state={visit.state} />
        {visit.jobState === "awaiting deposit" && ", waiting for the deposit"}
        {visit.state === "promised" && visit.approval !== null && visit.approval !== "given" && (
          <>
            ,{" "}
            <LinkBox href={`/incoming?open=booking%20${visit.jobId}`}>
              {visit.approval === "waiting" ? "to be confirmed" : "waiting for the customer’s answer"}
            </LinkBox>
          </>
        )}
      </Fact>
      {visit.comes && <WhoComes comes={visit.comes} chosen={visit.id} onOpen={onOpen} />}
      <Fact name="Customer">
        {visit.customer.id !== null ? (
          <LinkBox href={`/customers/${visit.customer.id}`} sx={{ color: ink.lake }}>
            {visit.customer.name}
          </LinkBox>
        ) : (
          visit.customer.name
        )}
        {[visit.customer.phone, visit.customer.mail].filter(Boolean).map((words) => (
          <div key={words}>{words}</div>
        ))}
      </Fact>
      <Fact name="Site">
        {visit.site}
        {visit.postcode && `, ${visit.postcode}`}
      </Fact>
      <Fact name="Who">
        {visit.technicians.length ? (
          visit.technicians.map((t) => `${t.name}, ${clock(t.arrives)} to ${clock(t.leaves)}`).join("; ")
        ) : (
          <b style={{ color: ink.ember }}>Nobody yet</b>
        )}
      </Fact>
      <Fact name="Time">
        {durationWords(visit.minutes)}
        {visit.crew > 1 && `, ${visit.crew} people`}
      </Fact>
      {visit.days.length > 1 && (
        <Fact name="Days">
          {visit.days.map((date, i) => (
            <Box key={date} component="span" sx={{ fontWeight: date === visit.date ? 700 : 400 }}>
              {i > 0 && ", "}
              {dayShort(date)}
            </Box>
          ))}
          . Moving the first day takes the others along.
        </Fact>
      )}
      {visit.totalMinor !== null && (
        <Fact name="Price">
          {moneyWords(visit.totalMinor, visit.currency)}
          {visit.depositMinor ? `, deposit ${moneyWords(visit.depositMinor, visit.currency)}` : ""}
          {visit.paysAtDoor && ", paid at the door"}
        </Fact>
      )}
      {visit.answers.map((a) => (
        <Fact key={a.id} name="Asked">
          {a.question} <b>{a.words}</b>
          <Photos tokens={a.photos ?? []} />
        </Fact>
      ))}
      {visit.additions.map((a) => (
        <Fact key={a.id} name="They wrote">
          {a.words}
          <Photos tokens={a.photos} />
        </Fact>
      ))}
      {visit.confirmed && <Fact name="Customer">✓ says that it suits</Fact>}
      {visit.checklist.length > 0 && (
        <Fact name="Checklist">
          {visit.checklist.map((item) =>
            mayChange && visit.state === "on site" ? (
              <FormControlLabel
                key={item.id}
                sx={{ display: "flex" }}
                control={
                  <Checkbox
                    size="small"
                    checked={ticked.includes(item.id)}
                    onChange={(e) =>
                      setTicks(e.target.checked ? [...ticked, item.id] : ticked.filter((id) => id !== item.id))
                    }
                  />
                }
                label={item.words}
              />
            ) : (
              <Box key={item.id}>
                {item.done ? "✓" : "○"} {item.words}
              </Box>
            ),
          )}
        </Fact>
      )}
      {visit.siteNotes.length > 0 && <Fact name="On site">{visit.siteNotes.join(" ")}</Fact>}
      {visit.instructions && (
        <Fact name="To do">
          <span style={{ whiteSpace: "pre-wrap" }}>{visit.instructions}</span>
        </Fact>
      )}
      {visit.note && <Fact name="Note">{visit.note}</Fact>}
      {mayChange && visit.steps.length > 0 && <Steps visit={visit} ticked={ticked} />}
      {mayChange && visit.jobId !== null && <RunningLate visit={visit} />}
      {mayChange && (visitStates.allows("move", visit.state) || visitStates.allows("go again", visit.state)) && (
        <SheetSection title="Move">
          <MoveForm visit={visit} />
          {visit.whyNot && (
            <LinkBox href={visit.whyNot} sx={{ color: ink.lake, fontSize: 14, display: "inline-block", mt: 2 }}>
              Why is another window not offered?
            </LinkBox>
          )}
        </SheetSection>
      )}
      {!visit.comes && (
        <SheetSection title="Repeat">
          <Repeats visit={visit} mayChange={mayChange} />
        </SheetSection>
      )}
      {person.permissions.includes("notes.see") && <TeamNotes visitId={visit.id} />}
      {visit.jobId && <LinkSection visit={visit} mayChange={mayChange} />}
      {visit.messages.length > 0 && (
        <SheetSection title="Messages">
          <MessageList messages={visit.messages} />
        </SheetSection>
      )}
      {visit.promises.length > 1 && (
        <SheetSection title="Promises">
          {visit.promises.map((p) => (
            <Fact key={p.made_at} name={p.pencilled ? "pencilled in" : p.ended_at ? "before" : "in force"}>
              {dayShort(localOf(p.window_from, visit.timeZone).date)},{" "}
              {windowIn(p.window_from, p.window_to, visit.timeZone)}
            </Fact>
          ))}
        </SheetSection>
      )}
      <SheetSection title="Who did what">
        {visit.history.map((h, i) => {
          const { date, minute } = localOf(Math.floor(h.at / 60_000), visit.timeZone);
          return (
            <Fact key={i} name={`${dayShort(date).slice(4)} ${clock(minute)}`}>
              {operationWords(h.operation)}, {actorInWords(h.actor)}
            </Fact>
          );
        })}
        {person.permissions.includes("audit.see") && (
          <LinkBox href={`/records?by=anybody&visit=${visit.id}`} sx={{ color: ink.lake, fontSize: 14 }}>
            Before and after
          </LinkBox>
        )}
      </SheetSection>
      {mayChange && visitStates.allows("cancel", visit.state) && <Cancel visit={visit} />}
    </SideSheet>
  );
}

function Promise({ visit }: { visit: VisitDetails }) {
  return (
    <Box
      sx={{
        borderRadius: "999px 999px 6px 6px",
        border: `1px solid ${ink.line}`,
        bgcolor: ink.paper,
        textAlign: "center",
        pt: 5,
        pb: 3,
        mb: 4,
        mx: 6,
      }}
    >
      <Box className="titles" sx={{ fontSize: 24, fontWeight: 700 }}>
        {windowWords(visit.windowFrom, visit.windowTo)}
      </Box>
      <Box sx={{ color: ink.ash }}>{dayWords(visit.date)}</Box>
    </Box>
  );
}

/** Done once, and asked about again in some months. */
function Again({ visit }: { visit: VisitDetails }) {
  const { send, busy } = useChange("set-again");
  return (
    <Box sx={{ mb: 4 }}>
      <AgainField
        months={visit.againMonths}
        disabled={busy}
        onMonths={(months) => void send({ visitId: visit.id, months })}
        helperText="Once it is done. Or let it come back by a rule:"
      />
    </Box>
  );
}

/** How it comes back, or the way to make it do so. */
function Repeats({ visit, mayChange }: { visit: VisitDetails; mayChange: boolean }) {
  if (visit.repeat?.active)
    return (
      <p style={{ margin: 0 }}>
        Repeats {visit.repeat.words}. Next: {visit.coming.slice(0, 3).map(dayShort).join(", ") || "none"}.
      </p>
    );
  if (mayChange && visit.jobId && visit.state !== "cancelled")
    return (
      <>
        <Again visit={visit} />
        <RepeatForm visit={visit} />
      </>
    );
  return <Box sx={{ color: ink.ash }}>Does not repeat.</Box>;
}
