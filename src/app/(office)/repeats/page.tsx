import { Bring } from "@/server/live";
import { firstPage } from "@/ui/first-page";
import { Repeats } from "./repeats";

export const metadata = { title: "Repeats" };

export default async function RepeatsPage({ searchParams }: { searchParams: Promise<{ search?: string }> }) {
  const { search = "" } = await searchParams;
  const first = { ...firstPage<"repeats">("next"), search: search.slice(0, 80) };
  return (
    <Bring back="/repeats" views={[["repeats", first]]}>
      <Repeats first={first} key={search} />
    </Bring>
  );
}
