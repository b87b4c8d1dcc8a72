import type { ViewOutput } from "@/api/client";
import { type KindOfBusiness, kindsOfBusiness } from "@/core/catalogue/kinds";
import { readAs } from "@/server/read";

/** The business and what can be booked, for search engines: schema.org as JSON-LD, safe inside a page. */
export function frontDoorForSearch(): string {
  const result = readAs("business-for-search", {}, { kind: "visitor" });
  // Nothing of it may end the element it stands in.
  return result.ok
    ? JSON.stringify({ "@context": "https://schema.org", ...businessAsLinkedData(result.value) }).replaceAll(
        "<",
        "\\u003c",
      )
    : "{}";
}

/** A business as schema.org's LocalBusiness, with an Offer for each service: estimated prices, and the link that books it. */
export function businessAsLinkedData({
  name,
  phone,
  mail,
  site,
  address,
  point,
  currency,
  hours,
  services,
  publicUrl,
}: ViewOutput<"business-for-search">) {
  const kinds = [...new Set(services.flatMap((s) => s.kind ?? []))];
  const days = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];
  // Always by twenty-four hours, as schema.org asks; the clock of the screens follows the business.
  const clock = (minute: number) =>
    `${String(Math.floor(minute / 60)).padStart(2, "0")}:${String(minute % 60).padStart(2, "0")}`;
  return {
    "@type": kinds.length ? kinds : "LocalBusiness",
    name,
    telephone: phone,
    email: mail,
    ...(site && { url: site }),
    ...(address && { address }),
    geo: { "@type": "GeoCoordinates", longitude: point.lng, latitude: point.lat },
    openingHoursSpecification: hours.map((h) => ({
      "@type": "OpeningHoursSpecification",
      dayOfWeek: days[h.weekday],
      opens: clock(h.opens),
      closes: clock(h.closes),
    })),
    makesOffer: services.map((s) => ({
      "@type": "Offer",
      url: s.slug ? `${publicUrl}/book?service=${s.slug}` : `${publicUrl}/book`,
      itemOffered: {
        "@type": "Service",
        name: s.name,
        description: s.description,
        category: s.category,
        ...(s.kind && { serviceType: kindsOfBusiness[s.kind as KindOfBusiness] }),
      },
      ...(s.price !== null && {
        priceSpecification: { "@type": "PriceSpecification", priceCurrency: currency, ...s.price },
      }),
    })),
    potentialAction: { "@type": "ReserveAction", target: `${publicUrl}/book` },
  };
}
