import { csvOf } from "../csv";
import type { Language } from "../messages/languages";
import type { TaxKind } from "../money/papers";
import { type ContactPerson, contactsCell } from "../people/contact-persons";

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
  /** How they are billed, where that is agreed with them; null: as the business. */
  billing: "job" | "month" | "hand" | null;
  paymentFrom: "invoice" | "end of month";
  taxKind: TaxKind;
  taxNumber: string;
  language: Language | null;
  contacts: readonly ContactPerson[];
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
  "Billed",
  "Due from",
  "Tax",
  "Tax number",
  "Language",
  "Contacts",
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
      card.billing ?? "",
      card.paymentFrom,
      card.taxKind,
      card.taxNumber,
      card.language ?? "",
      contactsCell(card.contacts),
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
