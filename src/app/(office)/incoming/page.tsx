import Button from "@mui/material/Button";
import { incoming } from "@/views/incoming";
import { read } from "@/app/server/read";
import { Top } from "../top";
import { Incoming } from "./incoming";

export const metadata = { title: "Incoming" };

export default async function IncomingPage({ searchParams }: { searchParams: Promise<{ open?: string }> }) {
  const { open } = await searchParams;
  const view = await read(incoming, {}, "/incoming");
  const waiting = view.entries.filter((e) => e.forUs).length;
  const away = view.entries.length - waiting;
  return (
    <>
      <Top
        title="Incoming"
        sum={[
          waiting ? `${waiting} ${waiting === 1 ? "waits" : "wait"} for a person` : "Nothing waits for you",
          away > 0 && `${away} for a customer’s answer`,
          view.handles && `${view.handles} handles incoming`,
        ]
          .filter(Boolean)
          .join(", ")}
        action={
          <Button variant="outlined" href="/why-not" sx={{ flex: "none" }}>
            Book on the phone
          </Button>
        }
      />
      <Incoming view={view} open={view.entries.find((e) => e.key === open) ?? null} />
    </>
  );
}
