import { Bring } from "@/server/live";
import { firstPage } from "@/ui/first-page";
import { everyOne } from "./data";
import { Repeats } from "./repeats";

export const metadata = { title: "Repeats" };

export default async function RepeatsPage({
  searchParams,
}: {
  searchParams: Promise<{ search?: string; open?: string }>;
}) {
  const { search = "", open } = await searchParams;
  const first = { ...firstPage<"repeats">("next"), search: search.slice(0, 80) };
  return (
    <Bring
      back="/repeats"
      views={[
        ["repeats", { ...first, ...everyOne }],
        ["repeats-outlook", {}],
      ]}
    >
      <Repeats first={first} open={Number(open) || null} key={search} />
    </Bring>
  );
}
