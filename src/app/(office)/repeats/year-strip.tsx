"use client";
import type { ViewOutput } from "@/api/client";
import { type Mark, markWords } from "@/core/repeats/strip";
import { addMonths, type LocalDate, numberOf } from "@/core/time/dates";
import { dayShort } from "@/core/time/words";
import { ink } from "@/ui/palette";
import { scaleLinear } from "d3-scale";
import Link from "next/link";

type Marks = ViewOutput<"repeats">["rows"][number]["strip"];

const colours: Partial<Record<Mark, string>> = { "no room": ink.ember, missed: ink.ember, asked: ink.ember };
const height = 24;

/** Twelve months back and twelve ahead: what became of each date, as a mark that opens its visit. */
export function YearStrip({ marks, today, width = 300 }: { marks: Marks; today: LocalDate; width?: number }) {
  const [from, to] = [addMonths(today, -12), addMonths(today, 12)];
  const at = scaleLinear([numberOf(from), numberOf(to)], [6, width - 6]);
  const months = Array.from({ length: 25 }, (_, i) => addMonths(`${from.slice(0, 7)}-01`, i + 1)).filter(
    (month) => month < to,
  );
  return (
    <svg width={width} height={height} role="group" aria-label="The year behind and the year ahead">
      {months.map((month) => (
        <line key={month} x1={at(numberOf(month))} x2={at(numberOf(month))} y1={5} y2={19} stroke={ink.line} />
      ))}
      <line x1={at(numberOf(today))} x2={at(numberOf(today))} y1={0} y2={height} stroke={ink.ember} />
      {marks.map(({ date, mark, visitId }) => (
        <MarkAt key={`${date} ${visitId}`} x={at(numberOf(date))} date={date} mark={mark} visitId={visitId} />
      ))}
    </svg>
  );
}

function MarkAt({ x, date, mark, visitId }: { x: number; date: LocalDate; mark: Mark; visitId: number | null }) {
  const { glyph, words } = markWords[mark];
  const said = `${dayShort(date)} ${date.slice(0, 4)}: ${words}`;
  const text = (
    <text x={x} y={17} textAnchor="middle" fontSize="13" fontWeight="700" fill={colours[mark] ?? ink.ink}>
      <title>{said}</title>
      {glyph}
    </text>
  );
  if (visitId === null)
    return (
      <g role="img" aria-label={said}>
        {text}
      </g>
    );
  return (
    <Link href={`/board?date=${date}&visit=${visitId}`} aria-label={said} onClick={(e) => e.stopPropagation()}>
      {text}
    </Link>
  );
}
