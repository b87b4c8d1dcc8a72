import { readAs } from "@/server/read";
import { frontDoorForSearch } from "./for-search";
import { FrontDoor } from "./front-door";

export async function generateMetadata() {
  const result = readAs("front-door", {}, { kind: "visitor" });
  return { title: result.ok ? `Book ${result.value.name}` : "Book" };
}

export default async function BookPage({
  searchParams,
}: {
  searchParams: Promise<{ service?: string; from?: string }>;
}) {
  const { service, from } = await searchParams;
  const result = readAs("front-door", {}, { kind: "visitor" });
  if (!result.ok) return <main style={{ padding: 24 }}>{result.problem.sentence}</main>;
  return (
    <>
      <script type="application/ld+json" dangerouslySetInnerHTML={{ __html: frontDoorForSearch() }} />
      <noscript>
        <p style={{ padding: 24, fontSize: 17 }}>
          To book here, your browser needs JavaScript. Call us on {result.value.phone}, and we book it for you.
        </p>
      </noscript>
      <FrontDoor
        business={result.value}
        slug={typeof service === "string" ? service : null}
        source={typeof from === "string" ? from.slice(0, 200) : null}
      />
    </>
  );
}
