import { readAs } from "@/server/read";
import { businessAsLinkedData } from "../book/for-search";

/** The feed for directories: schema.org's DataFeed with the business in it, where the owner wants to be listed. */
export function GET(): Response {
  const result = readAs("business-for-search", {}, { kind: "visitor" });
  if (!result.ok || !result.value.listed)
    return Response.json({ problem: "This business is in no directory." }, { status: 404 });
  const feed = {
    "@context": "https://schema.org",
    "@type": "DataFeed",
    name: result.value.name,
    dataFeedElement: [{ "@type": "DataFeedItem", item: businessAsLinkedData(result.value) }],
  };
  return Response.json(feed, {
    headers: { "content-type": "application/ld+json", "access-control-allow-origin": "*" },
  });
}
