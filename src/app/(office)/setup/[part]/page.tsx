import { notFound } from "next/navigation";
import { setup } from "@/views/setup";
import { read } from "@/app/server/read";
import { Top } from "../../top";
import { parts } from "../parts";
import { SetupScreen } from "../setup-screen";

export const metadata = { title: "Set-up" };

export default async function SetupPartPage({ params, searchParams }: { params: Promise<{ part: string }>; searchParams: Promise<{ id?: string }> }) {
  const { part } = await params;
  const { id } = await searchParams;
  const found = parts.find((p) => p.path === part);
  if (!found) notFound();
  const data = await read(setup, {}, `/setup/${part}`);
  return (
    <>
      <Top title="Set-up" sum={found.about} />
      <SetupScreen part={found.path} data={data} id={id ?? null} />
    </>
  );
}
