import { Bring } from "@/server/live";
import { readAs } from "@/server/read";
import { mustBeSignedIn } from "@/server/session";
import { LiveProvider } from "@/ui/live";
import { redirect } from "next/navigation";
import { FieldDay } from "./field-day";

export const metadata = { title: "My day" };

export default async function FieldPage() {
  const actor = await mustBeSignedIn("/field");
  if (actor.mustEnrol) redirect("/account");
  const result = readAs("field-day", {}, actor);
  if (!result.ok)
    return (
      <main style={{ padding: 32, fontSize: 17 }}>
        {result.problem.sentence} <a href="/today">To the office</a>
      </main>
    );
  return (
    <LiveProvider>
      <Bring back="/field" views={[["field-day", {}]]}>
        <FieldDay />
      </Bring>
    </LiveProvider>
  );
}
