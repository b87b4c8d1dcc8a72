"use client";
import type { ViewOutput } from "@/api/client";
import { type Channel, channelNames, channels } from "@/core/messages/purposes";
import { dayShort } from "@/core/time/words";
import { counted } from "@/core/words";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import Skeleton from "@mui/material/Skeleton";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { scaleBand, scaleLinear } from "d3-scale";
import { useState } from "react";

type View = ViewOutput<"message-figures">;

const spans = { 28: "four weeks", 91: "three months", 364: "a year" } as const;
const fills: Record<Channel, string> = { mail: ink.lake, text: ink.pine, voice: ink.honey };

/** What was sent by week and channel, and what became of visits after their reminder. */
export function Figures() {
  const [days, setDays] = useState(91);
  const { data, problem } = useLive("message-figures", { days });
  return (
    <Box sx={{ p: 6, overflowY: "auto", display: "grid", gap: 8, alignContent: "start", maxWidth: 980 }}>
      <TextField
        select
        size="small"
        label="Of the last"
        value={days}
        onChange={(e) => setDays(Number(e.target.value))}
        sx={{ width: 180 }}
      >
        {Object.entries(spans).map(([value, name]) => (
          <MenuItem key={value} value={value}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      {problem && <Alert severity="warning">{problem.sentence}</Alert>}
      {data ? (
        <>
          <Reminders view={data} />
          <Weeks view={data} />
        </>
      ) : (
        !problem && <Skeleton variant="rounded" height={320} />
      )}
    </Box>
  );
}

const share = (part: number, all: number): string => (all === 0 ? "" : `${Math.round((100 * part) / all)}%`);

/** Visits of which somebody was reminded, by channel: what became of them. */
function Reminders({ view }: { view: View }) {
  const parts = [
    { of: "confirmed", name: "confirmed", fill: ink.moss },
    { of: "moved", name: "moved", fill: ink.lake },
    { of: "cancelled", name: "cancelled", fill: ink.ash },
    { of: "missed", name: "nobody home", fill: ink.ember },
  ] as const;
  const width = scaleLinear()
    .domain([0, Math.max(1, ...view.reminders.map(({ visits }) => visits))])
    .range([0, 100]);
  return (
    <Box component="section" aria-label="Reminders">
      <Typography variant="h2" sx={{ mb: 2 }}>
        After a reminder
      </Typography>
      {view.reminders.length === 0 && <Box sx={{ color: ink.ash }}>No reminder has gone out in this time.</Box>}
      {view.reminders.map((row) => (
        <Box key={row.channel} sx={{ mb: 4 }}>
          <b>
            By {channelNames[row.channel]}: {counted(row.visits, "visit")}
          </b>
          {parts.map(({ of, name, fill }) => (
            <Box key={of} sx={{ display: "flex", alignItems: "center", gap: 2, fontSize: 14.5 }}>
              <Box sx={{ width: 110, color: ink.ash }}>{name}</Box>
              <Box sx={{ flex: 1 }}>
                <Box
                  sx={{
                    width: `${width(row[of])}%`,
                    minWidth: row[of] > 0 ? 3 : 0,
                    height: 14,
                    bgcolor: fill,
                    borderRadius: "2px",
                  }}
                />
              </Box>
              <Box sx={{ width: 90, textAlign: "right" }}>
                {row[of]} {row[of] > 0 && `· ${share(row[of], row.visits)}`}
              </Box>
            </Box>
          ))}
        </Box>
      ))}
    </Box>
  );
}

const size = { width: 900, height: 220, foot: 22 };

/** Messages of each week, by channel, with what did not arrive. */
function Weeks({ view }: { view: View }) {
  const weeks = [...new Set(view.weeks.map(({ week }) => week))];
  const of = (week: string, channel: Channel) => view.weeks.find((row) => row.week === week && row.channel === channel);
  const sumOf = (week: string) => channels.reduce((sum, channel) => sum + (of(week, channel)?.sent ?? 0), 0);
  const x = scaleBand().domain(weeks).range([0, size.width]).padding(0.25);
  const y = scaleLinear()
    .domain([0, Math.max(1, ...weeks.map(sumOf))])
    .nice()
    .range([0, size.height - size.foot]);
  const lost = view.weeks.reduce((sum, row) => sum + row.lost, 0);
  const parts = view.weeks.reduce((sum, row) => sum + row.parts, 0);
  const bars = weeks.flatMap((week) => {
    let below = 0;
    return channels.map((channel) => {
      const height = y(of(week, channel)?.sent ?? 0);
      below += height;
      return { week, channel, height, top: size.height - size.foot - below, sent: of(week, channel)?.sent ?? 0 };
    });
  });
  return (
    <Box component="section" aria-label="Sent by week">
      <Typography variant="h2" sx={{ mb: 2 }}>
        Sent by week
      </Typography>
      {weeks.length === 0 ? (
        <Box sx={{ color: ink.ash }}>Nothing was sent in this time.</Box>
      ) : (
        <Box
          component="svg"
          viewBox={`0 0 ${size.width} ${size.height}`}
          role="img"
          aria-label={weeks.map((week) => `Week of ${dayShort(week)}: ${sumOf(week)}`).join("; ")}
          sx={{ width: "100%" }}
        >
          {bars.map((bar) => (
            <rect
              key={`${bar.week} ${bar.channel}`}
              x={x(bar.week)}
              y={bar.top}
              width={x.bandwidth()}
              height={bar.height}
              fill={fills[bar.channel]}
            >
              <title>{`${dayShort(bar.week)}: ${bar.sent} by ${channelNames[bar.channel]}`}</title>
            </rect>
          ))}
          {weeks.map((week, i) =>
            i % Math.ceil(weeks.length / 8) === 0 ? (
              <text
                key={week}
                x={(x(week) ?? 0) + x.bandwidth() / 2}
                y={size.height - 5}
                textAnchor="middle"
                fontSize={13}
                fill={ink.ash}
              >
                {dayShort(week)}
              </text>
            ) : null,
          )}
        </Box>
      )}
      <Box sx={{ display: "flex", gap: 4, fontSize: 14, color: ink.ash, flexWrap: "wrap" }}>
        {channels.map((channel) => (
          <span key={channel}>
            <Box
              component="span"
              sx={{ display: "inline-block", width: 12, height: 12, bgcolor: fills[channel], mr: 1 }}
            />
            {channelNames[channel]}
          </span>
        ))}
        <span>{counted(lost, "message")} did not arrive</span>
        <span>
          {counted(parts, "part")} of texts
          {view.partMilli > 0 && `, ${((parts * view.partMilli) / 1000).toFixed(2)} ${view.currency}`}
        </span>
      </Box>
    </Box>
  );
}
