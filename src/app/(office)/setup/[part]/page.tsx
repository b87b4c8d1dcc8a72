import { notFound } from "next/navigation";
import { setup, type SetupData } from "@/views/setup";
import { read } from "@/app/server/read";
import { Top } from "../../top";
import { parts, type PartPath } from "../parts";
import { SetupScreen } from "../setup-screen";

/** One and the same for all of them, so that it is sent once. */
const notOpen = {
  description: "",
  questions: [],
  checklist: [],
  skills: [],
  extras: [],
  technicians: [],
  hours: [],
  windows: null,
  limits: { window: null, day: null, week: null },
  late: { hours: 0, kind: "none" as const, value: 0 },
  deposit: { kind: "none" as const, value: 0 },
};

/** Of long lists goes to the browser what the part shows, and only the entry that is open with all that belongs to it. */
const whatIsShown = (data: SetupData, part: PartPath, id: string | null): SetupData => ({
  ...data,
  services: !["services", "prices", "windows", "technicians", "sharing", "coupons"].includes(part)
    ? []
    : data.services.map((s) => (part === "services" && String(s.id) === id ? s : { ...s, ...notOpen })),
  zones:
    part === "zones"
      ? data.zones
      : part !== "technicians"
        ? []
        : data.zones.map((z) => ({ ...z, area: null, postcodes: [], towns: [] })),
});

export const metadata = { title: "Set-up" };

export default async function SetupPartPage({
  params,
  searchParams,
}: {
  params: Promise<{ part: string }>;
  searchParams: Promise<{ id?: string }>;
}) {
  const { part } = await params;
  const { id } = await searchParams;
  const found = parts.find((p) => p.path === part);
  if (!found) notFound();
  const data = whatIsShown(await read(setup, {}, `/setup/${part}`), found.path, id ?? null);
  return (
    <>
      <Top title="Set-up" sum={found.about} />
      <SetupScreen part={found.path} data={data} id={id ?? null} />
    </>
  );
}
