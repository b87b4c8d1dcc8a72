"use client";
import { moneyWords } from "@/core/money/amounts";
import { dayShort } from "@/core/time/words";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { scaleBand, scaleLinear } from "d3-scale";
import type { CampaignView } from "./data";

/** What came of it: in steps from the invitation to the money, and day by day. */
export function CampaignResults({ view }: { view: CampaignView }) {
  const results = view.results!;
  const amount = (minor: number) => moneyWords(minor, view.currency);
  const steps = [
    { name: "Invited", n: results.invited },
    { name: "Sent", n: results.sent },
    { name: "Opened", n: results.opened },
    { name: "Booked", n: results.booked },
  ];
  const width = scaleLinear().domain([0, results.invited]).range([0, 100]);
  return (
    <Box component="section" aria-label="Results" sx={{ mb: 6, display: "grid", gap: 4, maxWidth: 980 }}>
      <Typography variant="h2">What came of it</Typography>
      <Box sx={{ display: "grid", gridTemplateColumns: { md: "1fr 1fr" }, gap: 6 }}>
        <Box>
          {steps.map(({ name, n }) => (
            <Box key={name} sx={{ display: "flex", alignItems: "center", gap: 2, mb: 1 }}>
              <Box sx={{ width: 70, color: ink.ash }}>{name}</Box>
              <Box sx={{ flex: 1 }}>
                <Box
                  sx={{
                    width: `${width(n)}%`,
                    minWidth: n ? 3 : 0,
                    height: 14,
                    bgcolor: ink.pine,
                    borderRadius: "2px",
                  }}
                />
              </Box>
              <Box sx={{ width: 90, textAlign: "right" }}>
                {n} · {Math.round((100 * n) / results.invited)}%
              </Box>
            </Box>
          ))}
          <Box sx={{ mt: 2 }}>
            {results.bookedMinor !== null && results.earnedMinor !== null && (
              <>
                Bookings of <b>{amount(results.bookedMinor)}</b>, of which <b>{amount(results.earnedMinor)}</b> are
                paid.{" "}
              </>
            )}
            {results.left > 0
              ? `${results.left} ${results.left === 1 ? "wants" : "want"} no more offers.`
              : "Nobody has ended offers because of it."}
          </Box>
        </Box>
        <Days days={view.byDay} />
      </Box>
    </Box>
  );
}

const size = { width: 440, height: 130, foot: 20 };
/** Of one day. */
const widest = 96;

/** Invited by day, and how many of them have booked since. */
function Days({ days }: { days: CampaignView["byDay"] }) {
  const x = scaleBand()
    .domain(days.map(({ date }) => date))
    .range([0, Math.min(size.width, days.length * widest)])
    .padding(0.3);
  const y = scaleLinear()
    .domain([0, Math.max(1, ...days.map(({ invited }) => invited))])
    .range([0, size.height - size.foot]);
  const every = Math.ceil(days.length / 6);
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${size.width} ${size.height}`}
      role="img"
      aria-label={days
        .map(({ date, invited, booked }) => `${dayShort(date)}: ${invited} invited, ${booked} booked`)
        .join("; ")}
      sx={{ width: "100%" }}
    >
      {days.map(({ date, invited, booked }, i) => (
        <g key={date}>
          <rect
            x={x(date)}
            y={size.height - size.foot - y(invited)}
            width={x.bandwidth()}
            height={y(invited)}
            fill={ink.line}
          />
          <rect
            x={x(date)}
            y={size.height - size.foot - y(booked)}
            width={x.bandwidth()}
            height={y(booked)}
            fill={ink.pine}
          />
          {i % every === 0 && (
            <text
              x={(x(date) ?? 0) + x.bandwidth() / 2}
              y={size.height - 5}
              textAnchor="middle"
              fontSize={12}
              fill={ink.ash}
            >
              {dayShort(date)}
            </text>
          )}
        </g>
      ))}
    </Box>
  );
}
