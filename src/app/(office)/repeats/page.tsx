import { repeats } from "@/views/customers";
import { read } from "@/app/server/read";
import { Top } from "../top";
import { Repeats } from "./repeats";

export const metadata = { title: "Repeats" };

export default async function RepeatsPage() {
  const rows = await read(repeats, {}, "/repeats");
  const active = rows.filter((r) => r.state === "active");
  const without = active.reduce((n, r) => n + r.unplaced, 0);
  return (
    <>
      <Top title="Repeats" sum={`${active.length} active${without ? `, ${without} forecasts without room` : ""}`} />
      <Repeats rows={rows} />
    </>
  );
}
