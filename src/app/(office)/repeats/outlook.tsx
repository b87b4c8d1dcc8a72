"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { monthNames } from "@/core/repeats/rule-words";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import { scaleLinear } from "d3-scale";

type Months = ViewOutput<"repeats-outlook">["months"];

const [width, height] = [58, 62];
/** A doorway, as everywhere: round above, square below. */
const doorway = `M0 ${height}V${width / 2}a${width / 2} ${width / 2} 0 0 1 ${width} 0V${height}Z`;
/** A month that is filled so far by repeats alone leaves little for who books now. */
const full = 0.85;

const hours = (minutes: number): number => Math.round(minutes / 60);
const monthOf = ({ month }: Months[number]): string => monthNames[Number(month.slice(5)) - 1]!;

/** Hours and money of the coming twelve months, each month a doorway filled as far as its hours are. */
export function Outlook({ months, currency }: { months: Months; currency: string }) {
  const over = months.filter(({ minutes, thereAre }) => minutes > thereAre);
  return (
    <Box component="section" aria-label="The coming twelve months" sx={{ px: 6, pb: 3 }}>
      <Box
        component="ul"
        sx={{ display: "flex", gap: 1, m: 0, p: 0, listStyle: "none", overflowX: "auto", overflowY: "hidden" }}
      >
        {months.map((month) => (
          <Month key={month.month} month={month} currency={currency} />
        ))}
      </Box>
      <Box sx={{ color: ink.ash, fontSize: 13.5, mt: 1 }}>
        Hours of repeats against the hours there are
        {months[0]?.minor != null && ", and what they bring"}.
        {over.length > 0 && (
          <Box component="b" sx={{ color: ink.ember }}>
            {" "}
            {over.map((month) => `${monthOf(month)} is ${hours(month.minutes - month.thereAre)} h over`).join(", ")}.
          </Box>
        )}
      </Box>
    </Box>
  );
}

function Month({ month, currency }: { month: Months[number]; currency: string }) {
  const { minutes, thereAre, minor } = month;
  const share = thereAre > 0 ? minutes / thereAre : minutes > 0 ? 1 : 0;
  const level = scaleLinear([0, 1], [height, 0]).clamp(true)(share);
  const clip = `outlook-${month.month}`;
  const name = monthOf(month);
  const words = `${name}: ${hours(minutes)} hours of ${hours(thereAre)}${minor === null ? "" : `, ${moneyWords(minor, currency)}`}`;
  return (
    <Box component="li" title={words} sx={{ flex: "1 0 62px", textAlign: "center", fontSize: 13 }}>
      <svg viewBox={`-1 -1 ${width + 2} ${height + 2}`} width="100%" height={height + 2} role="img" aria-label={words}>
        <clipPath id={clip}>
          <path d={doorway} />
        </clipPath>
        <path d={doorway} fill="#fff" stroke={ink.line} />
        <rect
          clipPath={`url(#${clip})`}
          y={level}
          width={width}
          height={height - level}
          fill={share >= full ? "#DDA331" : "#CBD3CB"}
        />
        <text x={width / 2} y={height - 20} textAnchor="middle" fontSize="15" fontWeight="700" fill={ink.ink}>
          {name.slice(0, 3)}
        </text>
      </svg>
      <Box aria-hidden>
        {hours(minutes)} h
        {minor !== null && <Box sx={{ color: ink.ash }}>{moneyWords(minor, currency).replace(/[.,]\d\d$/, "")}</Box>}
      </Box>
    </Box>
  );
}
