import { Bring } from "@/server/live";
import { longestFirst } from "./data";
import { Incoming } from "./incoming";

export const metadata = { title: "Incoming" };

export default async function IncomingPage({ searchParams }: { searchParams: Promise<{ open?: string }> }) {
  const { open } = await searchParams;
  return (
    <Bring back="/incoming" views={[["incoming", longestFirst]]}>
      <Incoming openKey={open ?? null} />
    </Bring>
  );
}
