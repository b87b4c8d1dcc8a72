import { csvOf } from "../csv";

/** A customer as they are handed to another program: what is known of them, and where we go. */
export interface CustomerCard {
  name: string;
  phone: string;
  mail: string;
  reachedBy: "any" | "email" | "text" | "phone";
  tags: readonly string[];
  source: string;
  /** Null: as the business. */
  paymentDays: number | null;
  technicianNote: string;
  insideNote: string;
  bill: { name: string; mail: string; address: string } | null;
  reminders: boolean;
  offers: boolean;
  /** Local date. */
  since: string;
  sites: readonly CardSite[];
}
interface CardSite {
  name: string;
  line: string;
  postcode: string;
  access: string;
  parking: string;
}

const heads = [
  "Name",
  "Phone",
  "Email",
  "Reached by",
  "Tags",
  "Source",
  "Days to pay",
  "Note for technicians",
  "Note for inside",
  "Bill to",
  "Bill email",
  "Bill address",
  "Reminders",
  "Offers",
  "Customer since",
  "Site",
  "Address",
  "Postcode",
  "Getting in",
  "Parking",
] as const;

const noSite: CardSite = { name: "", line: "", postcode: "", access: "", parking: "" };
const yesNo = (value: boolean): string => (value ? "yes" : "no");

/** Customers as CSV (RFC 4180): a row for each site, and one for whoever has none. The import reads it back to the same. */
export function customersCsv(cards: readonly CustomerCard[]): string {
  const data = cards.flatMap((card) =>
    (card.sites.length ? card.sites : [noSite]).map((site) => [
      card.name,
      card.phone,
      card.mail,
      card.reachedBy,
      card.tags.join(", "),
      card.source,
      card.paymentDays ?? "",
      card.technicianNote,
      card.insideNote,
      card.bill?.name ?? "",
      card.bill?.mail ?? "",
      card.bill?.address ?? "",
      yesNo(card.reminders),
      yesNo(card.offers),
      card.since,
      site.name,
      site.line,
      site.postcode,
      site.access,
      site.parking,
    ]),
  );
  return csvOf(heads, data);
}
