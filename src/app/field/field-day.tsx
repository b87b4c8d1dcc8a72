"use client";
import type { ViewOutput } from "@/api/client";
import { missing, tick as ticked } from "@/core/catalogue/checklist";
import { moneyWords } from "@/core/money/amounts";
import { type ProblemCode, Refusal } from "@/core/problems";
import { clock, dayShort, dayWords, durationWords, windowWords } from "@/core/time/words";
import { lateBy } from "@/core/visits/lateness";
import { type FieldStep, furtherOf, nextStep, type VisitState, visitStates } from "@/core/visits/states";
import { stateGlyphs } from "@/ui/arch";
import { AgainField } from "@/ui/again-field";
import { useRefresh, useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import { Photos } from "@/ui/photos";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Typography from "@mui/material/Typography";
import { onlineManager } from "@tanstack/react-query";
import { TakePayment } from "./take-payment";
import type { StepOnPhone } from "./step-queue";
import { WhoComes } from "./who-comes";
import { useAgain, useSteps, useTicks } from "./use-steps";

type View = ViewOutput<"field-day">;
type Stop = View["stops"][number];

const stepWords: Record<FieldStep, string> = {
  "on the way": "➜ On the way",
  "on site": "◐ On site",
  done: "● Done",
  "no access": "⊘ No access",
};
const over = (stop: Stop) => visitStates.allows("over", stop.state);

/** A technician's day on the phone: the next stop as a doorway, the next step as one big button. */
export function FieldDay() {
  const view = useShown("field-day", {}, 30_000);
  const refresh = useRefresh();
  const { take, kept, refused, stateOf, dismiss } = useSteps(refresh);
  const { ticksOf, tick } = useTicks();
  const { againOf, setAgain } = useAgain();

  // What was tapped counts at once, sent or not.
  const stops = view.stops.map((stop) => asItStands(stop, stateOf));
  const current =
    stops.find((s) => s.state === "on site") ??
    stops.find((s) => s.state === "on the way") ??
    stops.find((s) => s.state === "promised");
  const rest = stops.filter((s) => s !== current);
  const next = current && nextStep(current.state);
  // Where nobody drives, it begins without a way.
  const step = current && current.workPlace !== "site" && next === "on the way" ? "on site" : next;
  const left = current && step === "done" ? missing(ticked(current.checklist, ticksOf(current))).length : 0;
  const first = view.name.split(" ")[0]!;

  return (
    <Box
      component="main"
      sx={{ maxWidth: 560, mx: "auto", minHeight: "100dvh", display: "flex", flexDirection: "column", fontSize: 17 }}
    >
      <Box sx={{ flex: 1, px: 4, pt: 4, pb: 4 }}>
        <Box
          component="header"
          sx={{ display: "flex", justifyContent: "space-between", alignItems: "baseline", mb: 3 }}
        >
          <Typography variant="h1" sx={{ fontSize: 24 }}>
            {first}
            {first.endsWith("s") ? "’" : "’s"} {dayWords(view.today).split(" ")[0]}
          </Typography>
          <Box sx={{ color: ink.ash }}>
            {stops.filter(over).length} of {stops.length} done
          </Box>
        </Box>
        {refused.map((step) => (
          <Alert key={step.id} severity="warning" sx={{ mb: 3 }} onClose={() => dismiss(step.id)}>
            {stepWords[step.to]} at {nameOf(view.stops, step.visitId)} was not accepted. {step.problem?.sentence}
          </Alert>
        ))}
        {current ? (
          <NextStop
            stop={current}
            currency={view.currency}
            takes={view.takes}
            now={view.now}
            ticks={ticksOf(current)}
            onTick={(ids) => tick(current.id, ids)}
            again={againOf(current)}
            onAgain={(months) => setAgain(current.id, months)}
            onMissing={(visitId) => take({ visitId, to: "no access" })}
          />
        ) : (
          <Typography sx={{ my: 8 }}>
            {stops.length ? "That was the last one. Good evening!" : "No visits today."}
          </Typography>
        )}
        {rest.map((stop) => (
          <Box
            key={stop.id}
            sx={{
              display: "flex",
              gap: 4,
              py: 3,
              borderTop: `1px solid ${ink.line}`,
              color: over(stop) ? ink.ash : ink.ink,
            }}
          >
            <Box sx={{ width: 66, fontWeight: over(stop) ? 400 : 700 }}>
              {windowWords(stop.windowFrom, stop.windowTo)}
            </Box>
            <Box sx={{ flex: 1, minWidth: 0 }}>
              {whoComesTo(stop)}, {stop.service.toLowerCase()}
              {!over(stop) && (
                <Box sx={{ color: ink.ash, fontSize: 15 }}>
                  {stop.line}
                  {stop.driving > 0 && `, ${stop.driving} min drive`}
                </Box>
              )}
            </Box>
            <Box aria-label={stop.state}>{stateGlyphs[stop.state]}</Box>
          </Box>
        ))}
      </Box>
      <Box
        sx={{ position: "sticky", bottom: 0, bgcolor: ink.plaster, borderTop: `1px solid ${ink.line}`, px: 4, py: 3 }}
      >
        <KeptSteps steps={kept} stops={view.stops} />
        {current && step && (
          <Button
            variant="contained"
            fullWidth
            disabled={left > 0}
            onClick={() =>
              take({
                visitId: current.id,
                to: step,
                ticked: ticksOf(current),
                ...(step === "done" && current.mayComeAgain && { againMonths: againOf(current) }),
              })
            }
            sx={{ height: 60, fontSize: 19 }}
          >
            {left
              ? `${left} required ${left === 1 ? "item" : "items"} left`
              : current.workPlace !== "site" && step === "on site"
                ? "◐ Begin"
                : stepWords[step]}
          </Button>
        )}
        {current && current.comes.length === 0 && visitStates.follows("no access", current.state) && (
          <Button fullWidth onClick={() => take({ visitId: current.id, to: "no access" })} sx={{ mt: 1, height: 48 }}>
            {stepWords["no access"]}
          </Button>
        )}
        {!current && (
          <Button fullWidth onClick={refresh} sx={{ height: 48 }}>
            Look again
          </Button>
        )}
      </Box>
    </Box>
  );
}

/** A time that customers share stands where those of them are who came. */
function asItStands(stop: Stop, stateOf: (visit: { id: number; state: VisitState }) => VisitState): Stop {
  if (stop.comes.length === 0) return { ...stop, state: stateOf(stop) };
  const comes = stop.comes.map((one) => ({ ...one, state: stateOf(one) }));
  const here = comes.filter((one) => one.state !== "no access");
  const state = here.length ? here.map((one) => one.state).reduce(furtherOf) : "no access";
  return { ...stop, id: here[0]?.id ?? stop.id, comes, state };
}

const whoComesTo = ({ comes, customer }: Stop): string => (comes.length > 1 ? `${comes.length} customers` : customer);

const nameOf = (stops: readonly { id: number; customer: string }[], visitId: number): string =>
  stops.find((s) => s.id === visitId)?.customer ?? "an earlier stop";

/** What is kept on this phone until it can be sent, and why it is not sent yet. */
function KeptSteps({
  steps,
  stops,
}: {
  steps: readonly StepOnPhone[];
  stops: readonly { id: number; customer: string }[];
}) {
  const problem =
    steps.find((step) => step.problem)?.problem ?? (steps.length && !onlineManager.isOnline() ? offline : null);
  if (!problem) return null;
  const list = steps.map((step) => `${stepWords[step.to]} at ${nameOf(stops, step.visitId)}`).join(", ");
  return (
    <Box role="status" sx={{ color: ink.ash, fontSize: 15, mb: 2 }}>
      Kept on this phone until it can be sent: {list}. {whyKept[problem.code] ?? problem.sentence}{" "}
      {problem.code === "not-signed-in" && <a href="/signin?to=/field">Sign in</a>}
    </Box>
  );
}
const offline = new Refusal("offline").problem;
const whyKept: Partial<Record<ProblemCode, string>> = {
  offline: "There is no signal.",
  "not-signed-in": "You have been signed out.",
  "too-many-tries": "Too many requests at once.",
};

function NextStop({
  stop,
  currency,
  takes,
  now,
  ticks,
  onTick,
  again,
  onAgain,
  onMissing,
}: {
  stop: Stop;
  currency: string;
  takes: View["takes"];
  now: number;
  ticks: string[];
  onTick: (ids: string[]) => void;
  /** In how many months its customer is asked again. */
  again: number | null;
  onAgain: (months: number | null) => void;
  /** Of those who share the time, one has not come. */
  onMissing: (visitId: number) => void;
}) {
  const arrives = Math.max(now + stop.driving, stop.arrives);
  const late = lateBy({ ...stop, arrives }, now);
  const chip = (words: string) => (
    <Box key={words} sx={{ border: `1px solid ${ink.line}`, borderRadius: "6px", px: 2, py: 0.75, fontSize: 15 }}>
      {words}
    </Box>
  );
  return (
    <Box
      component="section"
      aria-label="Next stop"
      sx={{
        bgcolor: "#fff",
        border: `1px solid ${ink.line}`,
        borderRadius: "120px 120px 6px 6px",
        px: 5,
        pt: 9,
        pb: 5,
        mb: 4,
      }}
    >
      <Box sx={{ color: ink.ash, textAlign: "center" }}>
        {stateGlyphs[stop.state]} {stop.state}, {windowWords(stop.windowFrom, stop.windowTo)}
      </Box>
      <Box className="titles" sx={{ fontSize: 27, fontWeight: 700, lineHeight: 1.15, mt: 2 }}>
        {stop.service}
      </Box>
      <Box sx={{ mt: 1, fontSize: 18 }}>{whoComesTo(stop)}</Box>
      <Box>{[stop.line, stop.postcode].filter(Boolean).join(", ")}</Box>
      {stop.comes.length > 0 && <WhoComes stop={stop} currency={currency} onMissing={onMissing} />}
      {stop.instructions && <Box sx={{ mt: 3, whiteSpace: "pre-wrap" }}>{stop.instructions}</Box>}
      {stop.comes.length === 0 && stop.note && <Box sx={{ mt: 3, color: ink.ash }}>{stop.note}</Box>}
      {(stop.comes.length ? [] : [...stop.answers, ...stop.additions]).map((answer, i) => (
        <Box key={i} sx={{ mt: 1, color: ink.ash }}>
          {answer.words}
          <Photos tokens={answer.photos} size={92} />
        </Box>
      ))}
      {stop.state === "on site" && stop.checklist.length > 0 && (
        <Box role="group" aria-label="Checklist" sx={{ mt: 4, borderTop: `1px solid ${ink.line}` }}>
          {stop.checklist.map((item) => (
            <FormControlLabel
              key={item.id}
              sx={{ display: "flex", minHeight: 52, borderBottom: `1px solid ${ink.line}`, mr: 0 }}
              control={
                <Checkbox
                  checked={ticks.includes(item.id)}
                  onChange={(e) =>
                    onTick(e.target.checked ? [...ticks, item.id] : ticks.filter((id) => id !== item.id))
                  }
                />
              }
              label={
                <>
                  {item.words}
                  {item.required && (
                    <Box component="span" sx={{ color: ink.ash }}>
                      {" "}
                      (required)
                    </Box>
                  )}
                </>
              }
            />
          ))}
        </Box>
      )}
      {stop.state === "on site" && stop.mayComeAgain && (
        <AgainField months={again} onMonths={onAgain} size="medium" sx={{ mt: 4 }} />
      )}
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 2, mt: 3 }}>
        {chip(durationWords(stop.minutes))}
        {stop.comes.length === 0 &&
          stop.toCollectMinor > 0 &&
          chip(`${moneyWords(stop.toCollectMinor, currency)} to collect at the door`)}
        {stop.lastHere && chip(`last here ${dayShort(stop.lastHere)}`)}
      </Box>
      {stop.state !== "on site" && (
        <Box sx={{ mt: 3, fontWeight: 650, color: late > 0 ? ink.ember : ink.ink }}>
          {stop.workPlace === "afar"
            ? `Planned for ${clock(stop.arrives)}.`
            : late > 0
              ? `Arrive ${clock(arrives % 1440)} if you leave now: ${durationWords(late)} late.`
              : `${stop.driving} min drive, planned for ${clock(stop.arrives)}.`}
        </Box>
      )}
      {stop.state === "on site" && (stop.dueMinor > 0 || stop.card) && (
        <Box sx={{ mt: 3 }}>
          <TakePayment key={stop.id} stop={stop} currency={currency} takes={takes} />
        </Box>
      )}
      {stop.comes.length === 0 && (
        <Box sx={{ mt: 3 }}>
          <Button variant="outlined" href={`tel:${stop.phone.replace(/[^\d+]/g, "")}`} sx={{ minHeight: 48 }}>
            Call {stop.phone}
          </Button>
        </Box>
      )}
    </Box>
  );
}
