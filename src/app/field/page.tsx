import { fieldDay } from "@/views/field";
import { look } from "@/views/view";
import { getHogar } from "../server/hogar";
import { mustBeSignedIn } from "../server/session";
import { FieldDay } from "./field-day";

export const metadata = { title: "My day" };

export default async function FieldPage() {
  const actor = await mustBeSignedIn("/field");
  const result = look(getHogar(), fieldDay, {}, actor);
  if (!result.ok)
    return (
      <main style={{ padding: 32, fontSize: 17 }}>
        {result.problem.sentence} <a href="/today">To the office</a>
      </main>
    );
  return <FieldDay view={result.value} />;
}
