"use client";
import { BestPlaces } from "@/app/(office)/repeats/best-places";
import { OtherWorkFields, type Others } from "@/app/(office)/repeats/pattern-fields";
import { ComesField, CountedField, TechnicianField } from "@/app/(office)/repeats/term-fields";
import type { Counted } from "@/core/repeats/counted";
import type { Comes } from "@/core/repeats/flexible";
import { datesOfRule, ruleText } from "@/core/repeats/recurrence";
import { ruleFrom } from "@/core/repeats/rule";
import { addDays } from "@/core/time/dates";
import { dayShort } from "@/core/time/words";
import { DateField } from "@/ui/date-field";
import { TimeField } from "@/ui/form-parts";
import { useLive } from "@/ui/live";
import { readOrSay, RuleEditor } from "@/ui/rule-editor";
import { useChange } from "@/ui/use-change";
import { type AtSite, OtherSites } from "./other-sites";
import type { OperationInput, ViewOutput } from "@/api/client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import ListSubheader from "@mui/material/ListSubheader";
import MenuItem from "@mui/material/MenuItem";
import Skeleton from "@mui/material/Skeleton";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { useRouter } from "next/navigation";
import { useState } from "react";

/** Agrees a repeat with a customer: what, where, how often, and the day, window and technician that fit best. */
export function NewRepeat({ customer, onClose }: { customer: { id: number; name: string }; onClose: () => void }) {
  const { data, problem } = useLive("repeat-beginning", { customerId: customer.id });
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle>A repeat for {customer.name}</DialogTitle>
      {problem && (
        <DialogContent>
          <Alert severity="warning">{problem.sentence}</Alert>
        </DialogContent>
      )}
      {!data && !problem && (
        <DialogContent>
          <Skeleton variant="rounded" height={300} />
        </DialogContent>
      )}
      {data && <Form beginning={data} customerId={customer.id} onClose={onClose} />}
    </Dialog>
  );
}

function Form({
  beginning,
  customerId,
  onClose,
}: {
  beginning: ViewOutput<"repeat-beginning">;
  customerId: number;
  onClose: () => void;
}) {
  const { sites, services, patterns, technicians, tomorrow } = beginning;
  const router = useRouter();
  const [draft, setDraft] = useState(() => ({
    siteId: sites[0]!.id,
    work: patterns[0] ? `pattern ${patterns[0].id}` : `service ${services[0]?.id ?? 0}`,
    others: { firstPatternId: null, nth: null } as Others,
    otherSites: [] as AtSite[],
    rule: ruleText(ruleFrom({ every: 4, unit: "week" }, tomorrow)),
    from: tomorrow,
    fromMinute: 540,
    toMinute: 660,
    technicianId: null as number | null,
    comes: (services[0]?.comes ?? "set") as Comes,
    counted: "calendar" as Counted,
  }));
  const [looking, setLooking] = useState(false);
  const set = (change: Partial<typeof draft>) => setDraft({ ...draft, ...change });
  const { send, busy, wrong } = useChange("agree-repeat");
  const { rule } = readOrSay(draft.rule);
  const start =
    (rule && datesOfRule({ ...rule, count: null }, draft.from, draft.from, addDays(draft.from, 3660), 1)[0]) ??
    draft.from;
  const items = itemsOf(draft.work, beginning);
  const agree = async () => {
    const { siteId, rule, from, fromMinute, toMinute, technicianId, comes, counted, otherSites, others } = draft;
    const at = { siteId, from, fromMinute, toMinute, otherSites };
    const terms = { rule, technicianId, comes, counted, onClosed: "nearest", leewayDays: null } as const;
    const done = await send({ customerId, items, ...at, ...terms, ...others });
    if (done) router.push(`/repeats?open=${done.value.repeatId}`);
  };
  return (
    <>
      <DialogContent>
        <Stack spacing={3} sx={{ pt: 1 }}>
          {sites.length > 1 && (
            <TextField
              select
              label="Where"
              value={draft.siteId}
              onChange={(e) => {
                const siteId = Number(e.target.value);
                set({ siteId, otherSites: draft.otherSites.filter((at) => at.siteId !== siteId) });
              }}
            >
              {sites.map((site) => (
                <MenuItem key={site.id} value={site.id}>
                  {site.line}
                </MenuItem>
              ))}
            </TextField>
          )}
          <TextField
            select
            label="What"
            value={draft.work}
            onChange={(e) => {
              const [main] = itemsOf(e.target.value, beginning);
              const comes = services.find(({ id }) => id === main?.serviceId)?.comes ?? draft.comes;
              set({ work: e.target.value, comes });
            }}
            error={!!wrong("/items")}
            helperText={wrong("/items")}
          >
            {patterns.length > 0 && <ListSubheader>Job patterns</ListSubheader>}
            {patterns.map(({ id, name }) => (
              <MenuItem key={`pattern ${id}`} value={`pattern ${id}`}>
                {name}
              </MenuItem>
            ))}
            {patterns.length > 0 && <ListSubheader>Services</ListSubheader>}
            {services.map(({ id, name }) => (
              <MenuItem key={`service ${id}`} value={`service ${id}`}>
                {name}
              </MenuItem>
            ))}
          </TextField>
          <OtherWorkFields
            patterns={patterns}
            value={draft.others}
            onValue={(others) => set({ others })}
            wrong={wrong}
          />
          <DateField label="From" value={draft.from} onValue={(from) => from && set({ from })} wrong={wrong("/from")} />
          <RuleEditor text={draft.rule} start={start} wrong={wrong("/rule")} onText={(text) => set({ rule: text })} />
          <Button
            variant="outlined"
            aria-expanded={looking}
            disabled={!rule}
            onClick={() => setLooking(!looking)}
            sx={{ alignSelf: "flex-start" }}
          >
            Where does it fit best?
          </Button>
          {looking && rule && (
            <BestPlaces
              about={{ siteId: draft.siteId, items, rule: draft.rule, from: draft.from }}
              onChoose={({ rule: chosen, start: from, fromMinute, toMinute, technicianId }) => {
                set({ rule: chosen, from, fromMinute, toMinute, technicianId });
                setLooking(false);
              }}
            />
          )}
          <Stack direction="row" spacing={2}>
            <TimeField label="Window from" value={draft.fromMinute} onValue={(fromMinute) => set({ fromMinute })} />
            <TimeField
              label="until"
              value={draft.toMinute}
              onValue={(toMinute) => set({ toMinute })}
              wrong={wrong("/toMinute")}
            />
            <TechnicianField
              technicians={technicians}
              value={draft.technicianId}
              onValue={(technicianId) => set({ technicianId })}
            />
          </Stack>
          {sites.length > 1 && (
            <OtherSites
              sites={sites.filter(({ id }) => id !== draft.siteId)}
              begin={{ from: draft.from, fromMinute: draft.toMinute, toMinute: 2 * draft.toMinute - draft.fromMinute }}
              value={draft.otherSites}
              onValue={(otherSites) => set({ otherSites })}
              wrong={wrong}
            />
          )}
          <ComesField value={draft.comes} onValue={(comes) => set({ comes })} />
          <CountedField rule={rule} value={draft.counted} onValue={(counted) => set({ counted })} />
          <Box role="status" sx={{ fontSize: 14.5 }}>
            First on {dayShort(start)} {start.slice(0, 4)}. Its dates are forecasts; the customer hears of each when it
            is promised.
          </Box>
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Leave it</Button>
        <Button variant="contained" disabled={busy || !rule} onClick={() => void agree()}>
          Agree it
        </Button>
      </DialogActions>
    </>
  );
}

/** What is ordered by a choice: "pattern 3" or "service 5". */
function itemsOf(work: string, { patterns }: ViewOutput<"repeat-beginning">): OperationInput<"agree-repeat">["items"] {
  const [kind, id] = work.split(" ");
  return kind === "pattern"
    ? patterns.find((pattern) => pattern.id === Number(id))!.items
    : [{ serviceId: Number(id) }];
}
