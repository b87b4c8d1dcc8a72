import { Bring } from "@/server/live";
import { notFound } from "next/navigation";
import { Top } from "../../top";
import { parts } from "../parts";
import { SetupScreen } from "../setup-screen";

export const metadata = { title: "Set-up" };

export default async function SetupPartPage({
  params,
  searchParams,
}: {
  params: Promise<{ part: string }>;
  searchParams: Promise<{ id?: string }>;
}) {
  const { part } = await params;
  const id = (await searchParams).id ?? null;
  const found = parts.find((p) => p.path === part);
  if (!found) notFound();
  return (
    <Bring back={`/setup/${part}`} views={[["setup", { part, id }]]}>
      <Top title="Set-up" sum={found.about} />
      <SetupScreen part={found.path} id={id} />
    </Bring>
  );
}
