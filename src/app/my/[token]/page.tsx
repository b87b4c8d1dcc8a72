import { actorOfLink } from "@/kernel/links";
import { getHogar } from "@/server/hogar";
import { readAs } from "@/server/read";
import { signedIn } from "@/server/session";
import { readBusiness } from "@/store/business";
import { ReadOnly } from "@/ui/read-only";
import { MyVisit } from "./my-visit";

export const metadata = { title: "Your visit", robots: { index: false, follow: false } };

export default async function MyVisitPage({
  params,
  searchParams,
}: {
  params: Promise<{ token: string }>;
  searchParams: Promise<{ booked?: string }>;
}) {
  const { token } = await params;
  const hogar = getHogar();
  const actor = actorOfLink(hogar, token);
  const result = actor && readAs("my-visit", {}, actor);
  if (!result?.ok)
    return (
      <main style={{ padding: 32, maxWidth: 480, margin: "0 auto", fontSize: 17 }}>
        This link is no longer valid. Call us on {readBusiness(hogar.store)?.phone} and we will send a new one.
      </main>
    );
  const person = await signedIn();
  if (person)
    return (
      <ReadOnly
        words={`You are signed in as ${person.name}, so this page can be read here and not used. To act as the customer, open the link in a private window.`}
      >
        <MyVisit view={result.value} token="" justBooked={false} />
      </ReadOnly>
    );
  return <MyVisit view={result.value} token={token} justBooked={(await searchParams).booked !== undefined} />;
}
