import { isDate, localDate } from "@/core/time/local";
import { dayWords } from "@/core/time/words";
import { board, dayStrip } from "@/views/board";
import { frontDoor } from "@/views/front-door";
import { getHogar } from "@/app/server/hogar";
import { read } from "@/app/server/read";
import { DayStrip } from "../day-strip";
import { Top } from "../top";
import { Board } from "./board";

export const metadata = { title: "Board" };

export default async function BoardPage({
  searchParams,
}: {
  searchParams: Promise<{ date?: string; visit?: string }>;
}) {
  const { date: asked, visit } = await searchParams;
  const { timeZone } = await read(frontDoor, {}, "/board");
  const today = localDate(Math.floor(getHogar().now() / 60_000), timeZone);
  const date = asked && isDate(asked) ? asked : today;
  const [day, strip] = [await read(board, { date }, "/board"), await read(dayStrip, {}, "/board")];
  const visits = new Set(day.technicians.flatMap((t) => t.stops.map((s) => s.id))).size;
  const late = day.technicians.reduce((n, t) => n + t.late.length, 0);
  const sum = [
    `${visits} ${visits === 1 ? "visit" : "visits"}`,
    day.tray.length ? `${day.tray.length} unplaced` : "",
    late ? `${late} late` : "",
  ]
    .filter(Boolean)
    .join(" · ");
  return (
    <>
      <Top title={dayWords(date)} sum={sum} />
      <DayStrip days={strip} chosen={date} />
      <Board day={day} today={today} openVisit={visit ? Number(visit) : null} />
    </>
  );
}
