"use client";
import { ask, change as perform, type ViewInput, type ViewOutput } from "@/api/client";
import { addDays, addMonths } from "@/core/time/dates";
import { actorInWords } from "@/core/records/changes";
import { dateWords, weekdayNames, windowWords } from "@/core/time/words";
import { counted } from "@/core/words";
import { useAfterChange } from "@/ui/after-change";
import { DateField } from "@/ui/date-field";
import { TimeField } from "@/ui/form-parts";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useUndo } from "@/ui/use-undo";
import { useWork, WorkProgress } from "@/ui/use-work";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import { useState } from "react";

type Proposal = ViewOutput<"repeats-proposal">[number];
type Change = ViewInput<"repeats-proposal">["change"];
type Which = ViewInput<"repeat-ids">;

type Batch = ViewOutput<"repeat-batches">[number];

const atOnce = 10;

const nothing: Change = { weekday: null, until: null, technician: null, window: null, pause: null, priceBp: null };
/** So many days before it another price is told. */
const noticeDays = 30;

const canBeTaken = ({ terms, also }: Proposal): boolean => terms !== null || also.length > 0;

/** Does to one what was proposed for it, as a part of the batch. Answers what went wrong, or null. */
async function carryOut(
  { id: repeatId, terms, reviews }: Proposal,
  { pause, priceBp }: Change,
  from: string,
  batchId: number,
): Promise<string | null> {
  const done = [
    terms && (() => perform("change-repeat", { repeatId, ...terms, batchId })),
    pause && (() => perform("pause-repeat", { repeatId, ...pause, batchId })),
    priceBp != null &&
      reviews &&
      (() => perform("review-repeat-price", { repeatId, review: { date: from, byBp: priceBp, noticeDays }, batchId })),
  ];
  for (const act of done) {
    const result = act ? await act() : null;
    if (result && !result.ok) return result.problem.sentence;
  }
  return null;
}

interface ChangeManyProps {
  /** Those of the list, as it is filtered. */
  which: Which;
  words: string;
  today: string;
  technicians: readonly { id: number; name: string }[];
  onClose: () => void;
}

/** Many repeats at once: what it would do to each is shown first; then all of it or a part is taken, with one undo. */
export function ChangeMany({ which, words, today, technicians, onClose }: ChangeManyProps) {
  const [change, setChange] = useState<Change>(nothing);
  const [from, setFrom] = useState(addMonths(`${today.slice(0, 7)}-01`, 1));
  const [proposals, setProposals] = useState<Proposal[] | null>(null);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const work = useWork();
  const afterChange = useAfterChange();
  const sayWithUndo = useUndo();
  const set = (more: Partial<Change>) => {
    setChange({ ...change, ...more });
    setProposals(null);
  };
  const isSomething = Object.values(change).some((one) => one != null);
  const taken = (proposals ?? []).filter((one) => canBeTaken(one) && !left.has(one.id));

  const propose = () =>
    work.through("Looking at", async (step) => {
      const ids = await ask("repeat-ids", which);
      if (!ids.ok) return ids.problem.sentence;
      const found: Proposal[] = [];
      for (let i = 0; i < ids.value.length; i += atOnce) {
        if (step(i, ids.value.length)) return null;
        const some = await ask("repeats-proposal", { ids: ids.value.slice(i, i + atOnce), change, from });
        if (!some.ok) return some.problem.sentence;
        found.push(...some.value);
      }
      setProposals(found);
      // What finds no room is not taken by itself.
      setLeft(new Set(found.filter(({ odd }) => odd !== null).map(({ id }) => id)));
      return null;
    });
  const take = () =>
    work.through("Changing", async (step) => {
      const batch = await perform("begin-repeat-batch", { words: changeWords(change, from, technicians) });
      if (!batch.ok) return batch.problem.sentence;
      const { batchId } = batch.value;
      const done: number[] = [];
      let problem: string | null = null;
      for (const [i, proposal] of taken.entries()) {
        if (step(i, taken.length)) break;
        const wrong = await carryOut(proposal, change, from, batchId);
        if (wrong) {
          problem = `${proposal.customer}: ${wrong}`;
          break;
        }
        done.push(proposal.id);
      }
      afterChange();
      if (done.length)
        sayWithUndo(`${done.length} ${done.length === 1 ? "repeat is" : "repeats are"} changed`, () =>
          takeBack({ id: batchId, repeatIds: done }),
        );
      if (problem === null) onClose();
      return problem;
    });

  const takeBack = ({ id, repeatIds }: Pick<Batch, "id" | "repeatIds">) =>
    work.through("Taking back", async (step) => {
      // One that cannot be taken back keeps none of the others from it.
      const problems = new Set<string>();
      for (const [i, repeatId] of repeatIds.entries()) {
        if (step(i, repeatIds.length)) return null;
        const result = await perform("undo-repeat-change", { repeatId });
        if (!result.ok) problems.add(result.problem.sentence);
      }
      await perform("end-repeat-batch", { batchId: id });
      afterChange();
      return problems.size ? `All others are taken back. ${[...problems].join(" ")}` : null;
    });

  return (
    <Dialog open onClose={work.busy ? undefined : onClose} fullWidth maxWidth="md">
      <DialogTitle>Change many: {words}</DialogTitle>
      <DialogContent>
        <Stack spacing={3} sx={{ pt: 1 }}>
          <Stack direction="row" spacing={2}>
            <DateField
              label="From"
              value={from}
              onValue={(day) => day && (setFrom(day), setProposals(null))}
              width={170}
            />
            <WeekdayField
              label="Those who come on"
              value={change.weekday?.from ?? -1}
              none="any day"
              onValue={(day) =>
                set({ weekday: day < 0 ? null : { from: day, to: change.weekday?.to ?? (day + 6) % 7 } })
              }
            />
            {change.weekday && (
              <WeekdayField
                label="come on"
                value={change.weekday.to}
                onValue={(to) => set({ weekday: { from: change.weekday!.from, to } })}
              />
            )}
          </Stack>
          <Stack direction="row" spacing={2}>
            <TextField
              select
              label="Technician"
              value={change.technician === null ? "same" : (change.technician.to ?? "near")}
              onChange={(e) =>
                set({
                  technician:
                    e.target.value === "same"
                      ? null
                      : { to: e.target.value === "near" ? null : Number(e.target.value) },
                })
              }
            >
              <MenuItem value="same">as it is</MenuItem>
              <MenuItem value="near">whoever is best</MenuItem>
              {technicians.map((t) => (
                <MenuItem key={t.id} value={t.id}>
                  {t.name}, if they can
                </MenuItem>
              ))}
            </TextField>
            <DateField
              label="Season ends"
              value={change.until}
              onValue={(until) => set({ until })}
              width={220}
              clearable
            />
          </Stack>
          <Stack direction="row" spacing={2}>
            <WindowFields window={change.window ?? null} onWindow={(window) => set({ window })} />
            <ByPercentField bp={change.priceBp ?? null} onBp={(priceBp) => set({ priceBp })} />
          </Stack>
          <Stack direction="row" spacing={2}>
            <DateField
              label="Paused from"
              value={change.pause?.first ?? null}
              onValue={(first) => set({ pause: first === null ? null : pauseFrom(first, change.pause?.last) })}
              width={190}
              clearable
            />
            {change.pause && (
              <DateField
                label="until"
                value={change.pause.last}
                onValue={(last) => last && set({ pause: { ...change.pause!, last } })}
                width={170}
              />
            )}
          </Stack>
          {!proposals && <Batches busy={work.busy} onTakeBack={(batch) => void takeBack(batch)} />}
          {work.problem && <Alert severity="error">{work.problem}</Alert>}
          <WorkProgress work={work} />
          {proposals && (
            <Proposals
              proposals={proposals}
              left={left}
              onLeft={(id) => {
                const next = new Set(left);
                if (!next.delete(id)) next.add(id);
                setLeft(next);
              }}
            />
          )}
        </Stack>
      </DialogContent>
      <DialogActions>
        {!work.busy && <Button onClick={onClose}>Leave it</Button>}
        <Button variant="outlined" disabled={!isSomething || work.busy} onClick={() => void propose()}>
          Show what it does
        </Button>
        <Button variant="contained" disabled={taken.length === 0 || work.busy} onClick={() => void take()}>
          Do this for {taken.length}
        </Button>
      </DialogActions>
    </Dialog>
  );
}

/** "Fridays to Thursdays, from 1 Jan 2027". */
function changeWords(
  { weekday, until, technician, window, pause, priceBp }: Change,
  from: string,
  technicians: ChangeManyProps["technicians"],
): string {
  const said = [
    weekday && `${weekdayNames[weekday.from]}s to ${weekdayNames[weekday.to]}s`,
    technician && `to ${technicians.find(({ id }) => id === technician.to)?.name ?? "whoever is best"}`,
    window && windowWords(window.fromMinute, window.toMinute),
    until && `until ${dateWords(until)}`,
    pause && `paused ${dateWords(pause.first)} to ${dateWords(pause.last)}`,
    priceBp != null && `${priceBp > 0 ? "+" : "−"}${Math.abs(priceBp) / 100}%`,
  ];
  return `${said.filter(Boolean).join(", ")}, from ${dateWords(from)}`;
}

const pauseFrom = (first: string, last: string | undefined) => ({
  first,
  last: last && last >= first ? last : addDays(first, 30),
});

/** Another window for all, or each its own. */
function WindowFields({
  window,
  onWindow,
}: {
  window: Change["window"];
  onWindow: (window: Change["window"]) => void;
}) {
  return (
    <>
      <TextField
        select
        label="Window"
        value={window ? "other" : "same"}
        onChange={(e) => onWindow(e.target.value === "same" ? null : { fromMinute: 540, toMinute: 660 })}
      >
        <MenuItem value="same">as it is</MenuItem>
        <MenuItem value="other">another</MenuItem>
      </TextField>
      {window && (
        <>
          <TimeField
            label="From"
            value={window.fromMinute}
            onValue={(fromMinute) => onWindow({ ...window, fromMinute })}
            sx={{ width: 90 }}
          />
          <TimeField
            label="Until"
            value={window.toMinute}
            onValue={(toMinute) => onWindow({ ...window, toMinute })}
            sx={{ width: 90 }}
          />
        </>
      )}
    </>
  );
}

/** Dearer or cheaper by so many percent, for those that have a price of their own. */
function ByPercentField({ bp, onBp }: { bp: number | null; onBp: (bp: number | null) => void }) {
  const [typed, setTyped] = useState(bp === null ? "" : String(bp / 100));
  const read = (text: string): number | null => {
    const percent = Number(text.replace(",", ".").replace("−", "-"));
    return text.trim() === "" || !Number.isFinite(percent) || percent === 0 || Math.abs(percent) > 100
      ? null
      : Math.round(percent * 100);
  };
  const isOdd = typed.trim() !== "" && read(typed) === null;
  return (
    <TextField
      label="Price by percent"
      value={typed}
      onChange={(e) => {
        setTyped(e.target.value);
        onBp(read(e.target.value));
      }}
      error={isOdd}
      helperText={isOdd ? "A number like 3 or −2.5." : "Of those with a price of their own"}
      slotProps={{ htmlInput: { inputMode: "decimal" } }}
      sx={{ width: 190 }}
    />
  );
}

/** What was changed for many before, and can still be taken back as one. */
function Batches({ busy, onTakeBack }: { busy: boolean; onTakeBack: (batch: Batch) => void }) {
  const { data: batches } = useLive("repeat-batches", {});
  if (!batches?.length) return null;
  return (
    <Box component="section" aria-label="Changed before">
      {batches.map((batch) => (
        <Box key={batch.id} sx={{ display: "flex", alignItems: "center", gap: 2, fontSize: 14.5 }}>
          <Box sx={{ flex: 1 }}>
            {batch.words}: {counted(batch.repeatIds.length, "repeat")}, {actorInWords(batch.madeBy)}
          </Box>
          <Button size="small" disabled={busy} onClick={() => onTakeBack(batch)}>
            Take it back
          </Button>
        </Box>
      ))}
    </Box>
  );
}

function WeekdayField({
  label,
  value,
  none,
  onValue,
}: {
  label: string;
  value: number;
  none?: string;
  onValue: (day: number) => void;
}) {
  return (
    <TextField select label={label} value={value} onChange={(e) => onValue(Number(e.target.value))}>
      {none && <MenuItem value={-1}>{none}</MenuItem>}
      {weekdayNames.map((name, day) => (
        <MenuItem key={name} value={day}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}

function Proposals({
  proposals,
  left,
  onLeft,
}: {
  proposals: readonly Proposal[];
  left: ReadonlySet<number>;
  onLeft: (id: number) => void;
}) {
  const taken = proposals.filter((one) => canBeTaken(one) && !left.has(one.id));
  const driving = taken.reduce((sum, one) => sum + (one.driving ?? 0), 0);
  const promised = taken.reduce((sum, one) => sum + one.promised, 0);
  if (proposals.length === 0) return <Box role="status">It concerns none of them.</Box>;
  return (
    <>
      <Box role="status" sx={{ fontSize: 14.5 }}>
        {taken.length} of {proposals.length} are changed;{" "}
        {driving === 0
          ? "no more driving"
          : driving > 0
            ? `${driving} min more driving`
            : `${-driving} min less driving`}{" "}
        a visit, over their next ten dates.{" "}
        {promised > 0
          ? `${promised} promised ${promised === 1 ? "visit stays" : "visits stay"} as told.`
          : "Nobody has to be told: nothing promised is touched."}
      </Box>
      <Table size="small" aria-label="What it does to each">
        <TableHead>
          <TableRow>
            <TableCell padding="checkbox" />
            <TableCell>Who</TableCell>
            <TableCell>Now</TableCell>
            <TableCell>Then</TableCell>
            <TableCell align="right">Driving</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {proposals.map((one) => (
            <TableRow key={one.id}>
              <TableCell padding="checkbox">
                <Checkbox
                  size="small"
                  checked={canBeTaken(one) && !left.has(one.id)}
                  disabled={!canBeTaken(one)}
                  onChange={() => onLeft(one.id)}
                  slotProps={{ input: { "aria-label": `Change ${one.customer}` } }}
                />
              </TableCell>
              <TableCell>{one.customer}</TableCell>
              <TableCell>{one.from}</TableCell>
              <TableCell>
                {one.to}
                {one.also.map((words) => (
                  <Box key={words}>{words}</Box>
                ))}
                {one.odd && <Box sx={{ color: ink.ember }}>{one.odd}</Box>}
                {one.promised > 0 && <Box sx={{ color: ink.ash }}>{one.promised} promised, stays</Box>}
              </TableCell>
              <TableCell align="right">
                {one.driving === null
                  ? ""
                  : `${one.driving > 0 ? "+" : one.driving < 0 ? "−" : ""}${Math.abs(one.driving)} min`}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </>
  );
}
