import type { Hogar } from "@/operations/hogar";
import { businessForSearch } from "@/views/front-door";
import { look } from "@/views/view";

/** The business and what can be booked, for search engines: schema.org as JSON-LD, safe inside a page. */
export function frontDoorForSearch(hogar: Hogar): string {
  const result = look(hogar, businessForSearch, {}, { kind: "visitor" });
  if (!result.ok) return "{}";
  const { name, phone, mail, site, address, point, currency, hours, services } = result.value;
  const days = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];
  // Always by twenty-four hours, as schema.org asks; the clock of the screens follows the business.
  const clock = (minute: number) => `${String(Math.floor(minute / 60)).padStart(2, "0")}:${String(minute % 60).padStart(2, "0")}`;
  const page = {
    "@context": "https://schema.org",
    "@type": "LocalBusiness",
    name, "telephone": phone, "email": mail, ...(site && { url: site }), ...(address && { address }),
    "geo": { "@type": "GeoCoordinates", "longitude": point.lng, "latitude": point.lat },
    "openingHoursSpecification": hours.map((h) => ({ "@type": "OpeningHoursSpecification", "dayOfWeek": days[h.weekday], "opens": clock(h.opens), "closes": clock(h.closes) })),
    "makesOffer": services.map((s) => ({
      "@type": "Offer", "url": s.slug ? `${hogar.publicUrl}/book?service=${s.slug}` : `${hogar.publicUrl}/book`, "itemOffered": { "@type": "Service", "name": s.name, "description": s.description, "category": s.category },
      ...(s.price !== null && { priceSpecification: { "@type": "PriceSpecification", "priceCurrency": currency, [s.from ? "minPrice" : "price"]: s.price } }),
    })),
    "potentialAction": { "@type": "ReserveAction", "target": `${hogar.publicUrl}/book` },
  };
  // Nothing of it may end the element it stands in.
  return JSON.stringify(page).replaceAll("<", "\\u003c");
}
