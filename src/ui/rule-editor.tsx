"use client";
import { datesOfRule, OddRule, readRule, type Recurrence, ruleText } from "@/core/repeats/recurrence";
import { type DaysOfMonth, nthWorkingDay, waysOfMonth, workingDayOf } from "@/core/repeats/rule";
import { monthNames, recurrenceWords } from "@/core/repeats/rule-words";
import { addDays, type LocalDate, weekdayOf } from "@/core/time/dates";
import { dayShort, listWords, weekdayNames } from "@/core/time/words";
import { upper } from "@/core/words";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import { DateField } from "./date-field";
import { WholeField } from "./form-parts";

/** The rule of a text, or the sentence that says what is odd about it. */
export function readOrSay(text: string): { rule: Recurrence; odd: null } | { rule: null; odd: string } {
  try {
    return { rule: readRule(text), odd: null };
  } catch (error) {
    if (!(error instanceof OddRule)) throw error;
    return { rule: null, odd: error.message };
  }
}

const units = { DAILY: "days", WEEKLY: "weeks", MONTHLY: "months", YEARLY: "years" } as const;
const shown = 10;

interface RuleEditorProps {
  /** As RFC 5545 writes it. */
  text: string;
  start: LocalDate;
  wrong?: string;
  onText: (text: string) => void;
}

/** A rule that is put together, or typed as a calendar rule; below, what it says and its next dates. */
export function RuleEditor({ text, start, wrong, onText }: RuleEditorProps) {
  const { rule, odd } = readOrSay(text);
  const set = (part: Partial<Recurrence>) => rule && onText(ruleText({ ...rule, ...part }));
  const dates = rule ? datesOfRule(rule, start, start, addDays(start, 3660), shown) : [];
  return (
    <Stack spacing={3}>
      {rule && (
        <>
          <Stack direction="row" spacing={2}>
            <WholeField
              label="Every"
              value={rule.interval}
              onValue={(interval) => interval > 0 && set({ interval })}
              sx={{ width: 90 }}
            />
            <TextField
              select
              label="Unit"
              value={rule.freq}
              onChange={(e) => set({ ...nothing, freq: e.target.value as Recurrence["freq"] })}
            >
              {Object.entries(units).map(([freq, words]) => (
                <MenuItem key={freq} value={freq}>
                  {words}
                </MenuItem>
              ))}
            </TextField>
          </Stack>
          {rule.freq === "WEEKLY" && (
            <Weekdays rule={rule} start={start} onWeekdays={(weekdays) => set({ weekdays })} />
          )}
          {rule.freq === "MONTHLY" && <OfMonth rule={rule} start={start} onWay={set} />}
          {rule.freq !== "YEARLY" && (
            <TextField
              select
              label="In these months only"
              value={[...rule.months]}
              onChange={(e) =>
                set({
                  months: [e.target.value]
                    .flat()
                    .map(Number)
                    .sort((a, b) => a - b),
                })
              }
              slotProps={{
                select: {
                  multiple: true,
                  displayEmpty: true,
                  renderValue: (months) =>
                    (months as number[]).length
                      ? listWords((months as number[]).map((month) => monthNames[month - 1]!))
                      : "all of the year",
                },
                inputLabel: { shrink: true },
              }}
            >
              {monthNames.map((name, i) => (
                <MenuItem key={name} value={i + 1}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
          )}
          <Ends rule={rule} start={start} onEnd={set} />
        </>
      )}
      <TextField
        label="As a calendar rule"
        value={text}
        onChange={(e) => onText(e.target.value)}
        error={!!(odd ?? wrong)}
        helperText={odd ?? wrong ?? "RFC 5545, as calendar programs read it"}
        slotProps={{ htmlInput: { spellCheck: false } }}
      />
      {rule && (
        <Box role="status" sx={{ color: ink.ash, fontSize: 14 }}>
          <b style={{ color: ink.ink }}>{upper(recurrenceWords(rule, start))}</b>. {dates.map(dayShort).join(", ")}
          {dates.length === shown && " …"}
        </Box>
      )}
    </Stack>
  );
}

const nothing = { months: [], weeks: [], daysOfYear: [], daysOfMonth: [], weekdays: [], positions: [] };

function Weekdays({
  rule,
  start,
  onWeekdays,
}: {
  rule: Recurrence;
  start: LocalDate;
  onWeekdays: (weekdays: Recurrence["weekdays"]) => void;
}) {
  const chosen = rule.weekdays.length ? rule.weekdays.map(({ weekday }) => weekday) : [weekdayOf(start)];
  return (
    <ToggleButtonGroup
      size="small"
      aria-label="On"
      value={chosen}
      onChange={(_, days: number[]) =>
        days.length && onWeekdays(days.sort((a, b) => a - b).map((weekday) => ({ weekday, nth: null })))
      }
    >
      {weekdayNames.map((name, weekday) => (
        <ToggleButton key={name} value={weekday} aria-label={name} sx={{ flex: 1 }}>
          {name.slice(0, 2)}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}

/** Which day of the month is meant by the first date. */
function OfMonth({ rule, start, onWay }: { rule: Recurrence; start: LocalDate; onWay: (way: DaysOfMonth) => void }) {
  const wordsOf = (way: Partial<Recurrence>) =>
    recurrenceWords({ ...rule, interval: 1, until: null, count: null, months: [], ...way }, start);
  const ways = waysOfMonth(start);
  const at = ways.findIndex((way) => wordsOf(way) === wordsOf({}));
  const working = workingDayOf(rule);
  const isCounted = at < 0 && working !== null && working > 0;
  const choose = (value: string) => onWay(value === "counted" ? nthWorkingDay(2) : ways[Number(value)]!);
  return (
    <Stack direction="row" spacing={2}>
      <TextField
        select
        label="Which day"
        value={isCounted ? "counted" : at < 0 ? "" : at}
        onChange={(e) => choose(e.target.value)}
        helperText={at < 0 && !isCounted ? "As the calendar rule below says" : undefined}
      >
        {ways.map((way, i) => (
          <MenuItem key={i} value={i}>
            {wordsOf(way).replace(/^every month /, "")}
          </MenuItem>
        ))}
        <MenuItem value="counted">on another working day</MenuItem>
      </TextField>
      {isCounted && (
        <WholeField
          label="Working day"
          value={working}
          onValue={(nth) => nth >= 1 && nth <= 20 && onWay(nthWorkingDay(nth))}
          sx={{ width: 130 }}
        />
      )}
    </Stack>
  );
}

function Ends({
  rule,
  start,
  onEnd,
}: {
  rule: Recurrence;
  start: LocalDate;
  onEnd: (end: Pick<Recurrence, "count" | "until">) => void;
}) {
  const way = rule.until ? "until" : rule.count ? "count" : "open";
  const choose = (next: string) =>
    onEnd({
      until: next === "until" ? addDays(start, 365) : null,
      count: next === "count" ? 12 : null,
    });
  return (
    <Stack direction="row" spacing={2}>
      <TextField select label="Ends" value={way} onChange={(e) => choose(e.target.value)}>
        <MenuItem value="open">when it is cancelled</MenuItem>
        <MenuItem value="until">on a day</MenuItem>
        <MenuItem value="count">after a number of visits</MenuItem>
      </TextField>
      {rule.until && (
        <DateField
          label="Last day"
          value={rule.until}
          onValue={(until) => until && onEnd({ until, count: null })}
          width={170}
        />
      )}
      {rule.count && (
        <WholeField
          label="Visits"
          value={rule.count}
          onValue={(count) => count > 0 && onEnd({ count, until: null })}
          sx={{ width: 110 }}
        />
      )}
    </Stack>
  );
}
