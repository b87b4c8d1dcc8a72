import { isDate } from "@/core/time/dates";
import { localDate } from "@/core/time/local";
import { getHogar } from "@/server/hogar";
import { Bring } from "@/server/live";
import { readBusiness } from "@/store/business";
import { Board } from "./board";

export const metadata = { title: "Board" };

export default async function BoardPage({
  searchParams,
}: {
  searchParams: Promise<{ date?: string; visit?: string }>;
}) {
  const { date: asked, visit } = await searchParams;
  const { store, now } = getHogar();
  const today = localDate(Math.floor(now() / 60_000), readBusiness(store)!.time_zone);
  const date = asked && isDate(asked) ? asked : today;
  return (
    <Bring
      back="/board"
      views={[
        ["board", { date }],
        ["day-strip", {}],
      ]}
    >
      <Board date={date} today={today} openVisit={visit ? Number(visit) : null} />
    </Bring>
  );
}
