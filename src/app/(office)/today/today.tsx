"use client";
import { moneyWords } from "@/core/money/amounts";
import { dayWords, windowWords } from "@/core/time/words";
import { LinkBox } from "@/ui/link-box";
import { useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { DayStrip } from "../day-strip";
import { Top } from "../top";

const signs: Record<string, string> = {
  incoming: "?",
  unplaced: "○",
  late: "◑",
  "failed card": "✕",
  overdue: "€",
  bounced: "↩",
  expiring: "◔",
  reply: "✉",
  stuck: "!",
};

/** The first screen: what needs a person now, and how the day goes. */
export function Today() {
  const view = useShown("today", {}, 60_000);
  const strip = useShown("day-strip", {}, 60_000);
  const waiting = view.needs.reduce((sum, { n = 1 }) => sum + n, 0);
  return (
    <>
      <Top
        title={dayWords(view.today)}
        sum={`${view.booked.n} booked in the last 7 days, ${moneyWords(view.booked.minor, view.currency)}`}
      />
      <DayStrip days={strip} chosen={view.today} />
      <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 7fr) minmax(0, 5fr)", gap: 10, px: 6, py: 5 }}>
        <Box component="section">
          <Typography variant="h2" sx={{ mb: 2 }}>
            {waiting ? `Needs a person · ${waiting}` : "Nothing needs a person"}
          </Typography>
          {view.isFresh && (
            <LinkBox
              href="/setup/start"
              sx={{
                display: "block",
                p: 4,
                mb: 4,
                border: `2px solid ${ink.pine}`,
                borderRadius: "6px",
                textDecoration: "none",
                color: ink.ink,
                bgcolor: "#fff",
              }}
            >
              <b>Set the business up</b>
              <Box sx={{ color: ink.ash, mt: 1 }}>
                Six steps to the first booking, with services of your trade to begin with. Ten minutes are enough.
              </Box>
            </LinkBox>
          )}
          {view.needs.length === 0 && (
            <Typography sx={{ color: ink.ash }}>
              Visits without a technician, failed cards and what is late come here.
            </Typography>
          )}
          {view.needs.map((need, i) => (
            <LinkBox
              key={i}
              href={need.href}
              sx={{
                display: "flex",
                gap: 4,
                py: 2.25,
                borderTop: `1px solid ${ink.line}`,
                textDecoration: "none",
                color: ink.ink,
                "&:hover": { bgcolor: ink.plaster },
              }}
            >
              <Box
                aria-hidden="true"
                sx={{
                  width: 20,
                  textAlign: "center",
                  color: ["incoming", "late", "failed card", "stuck", "unplaced"].includes(need.kind)
                    ? ink.ember
                    : ink.ash,
                  fontWeight: 700,
                }}
              >
                {signs[need.kind]}
              </Box>
              <Box sx={{ minWidth: 0 }}>
                <Box sx={{ fontWeight: 650 }}>{need.words}</Box>
                <Box sx={{ color: ink.ash, fontSize: 14 }}>{need.detail}</Box>
              </Box>
            </LinkBox>
          ))}
        </Box>
        <Box component="section">
          <Typography variant="h2" sx={{ mb: 2 }}>
            The team today
          </Typography>
          {view.technicians.map((t) => (
            <Box key={t.id} sx={{ display: "flex", gap: 4, py: 2.25, borderTop: `1px solid ${ink.line}` }}>
              <Box sx={{ flex: 1, minWidth: 0 }}>
                <Box sx={{ fontWeight: 650 }}>{t.name}</Box>
                <Box sx={{ color: ink.ash, fontSize: 14 }}>
                  {t.off ??
                    (t.next
                      ? `next: ${t.next}, promised ${windowWords(t.nextFrom!, t.nextTo!)}`
                      : t.all_visits
                        ? "done for today"
                        : "no visits")}
                </Box>
              </Box>
              <Box sx={{ textAlign: "right", whiteSpace: "nowrap" }}>
                {t.all_visits > 0 && `${t.done} of ${t.all_visits} done`}
              </Box>
            </Box>
          ))}
        </Box>
      </Box>
    </>
  );
}
