"use client";
import type { ViewOutput } from "@/api/client";
import { addDays, servesWeekday, weekdayOf } from "@/core/time/dates";
import { dayShort, dayWords, weekdayNames } from "@/core/time/words";
import { counted } from "@/core/words";
import { arch, ink } from "@/ui/palette";
import Box from "@mui/material/Box";

type View = ViewOutput<"collection">;

/** Weeks that are shown, today's among them. */
const weeks = 5;

/** The coming weeks, a line each: on each day of a run what it takes, and what visits to come will bring. */
export function RunCalendar({ view, amount }: { view: View; amount: (minor: number) => string }) {
  const monday = addDays(view.today, -weekdayOf(view.today));
  const days = Array.from({ length: weeks * 7 }, (_, i) => addDays(monday, i));
  return (
    <Box
      role="group"
      aria-label="Calendar of coming runs"
      sx={{ display: "grid", gridTemplateColumns: "repeat(7, minmax(0, 1fr))", gap: 1, mb: 4 }}
    >
      {weekdayNames.map((name) => (
        <Box key={name} sx={{ color: ink.ash, fontSize: 13, textAlign: "center" }}>
          {name.slice(0, 3)}
        </Box>
      ))}
      {days.map((date) => (
        <Day key={date} date={date} view={view} amount={amount} />
      ))}
    </Box>
  );
}

function Day({ date, view, amount }: { date: string; view: View; amount: (minor: number) => string }) {
  const run = view.runs.find((one) => one.date === date);
  const expected = view.expected.find((one) => one.date === date);
  const isRunDay = servesWeekday(view.rules.weekdays, date) && date >= view.today;
  const said = [
    run && `${counted(run.n, "invoice")}, ${amount(run.sumMinor)}`,
    expected && `${counted(expected.n, "visit")} to come, ${amount(expected.sumMinor)}`,
  ].filter(Boolean);
  const isOpened = said.length > 0;
  return (
    <Box
      {...(isOpened && {
        component: "a" as const,
        href: `#${run ? "run" : "expected"}-${date}`,
        "aria-label": `${dayWords(date)}: ${said.join("; ")}`,
      })}
      sx={{
        minHeight: 62,
        px: 1,
        pt: isRunDay ? 3 : 1.5,
        pb: 1,
        textAlign: "center",
        fontSize: 13,
        lineHeight: 1.25,
        color: "inherit",
        textDecoration: "none",
        ...(isRunDay && { borderRadius: arch, border: `1px solid ${ink.line}` }),
        ...(run && { bgcolor: "#fff", borderColor: ink.pine }),
        ...(!isRunDay && { color: ink.ash }),
      }}
    >
      <Box sx={{ fontSize: 12, color: ink.ash }}>{date === view.today ? "today" : dayShort(date)}</Box>
      {run && <Box sx={{ fontWeight: 650 }}>{amount(run.sumMinor)}</Box>}
      {expected && <Box sx={{ color: ink.ash }}>+ {amount(expected.sumMinor)}</Box>}
    </Box>
  );
}
