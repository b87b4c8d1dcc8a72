import { Bring } from "@/server/live";
import { askedOf, securityFirst } from "./data";
import { Records } from "./records";

export const metadata = { title: "Who did what" };

export default async function RecordsPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | undefined>>;
}) {
  const query = await searchParams;
  const security = query.list === "security";
  return (
    <Bring
      back="/records"
      views={[security ? ["security-log", { ...securityFirst, kind: null }] : ["who-did-what", askedOf(query)]]}
    >
      <Records list={security ? "security" : "changes"} query={query} />
    </Bring>
  );
}
