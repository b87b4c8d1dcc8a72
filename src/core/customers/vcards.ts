import ICAL from "ical.js";
import type { CustomerCard } from "./cards";

/**
 * Customers as vCard 4 (RFC 6350): how they are reached, where we go, tags as categories, and the note for technicians. Notes
 * for inside stay inside: a card goes onto phones.
 */
export const vCardsOf = (cards: readonly CustomerCard[]): string => cards.map(vCardOf).join("");

function vCardOf(card: CustomerCard): string {
  const vcard = new ICAL.Component("vcard");
  vcard.addPropertyWithValue("version", "4.0");
  vcard.addPropertyWithValue("fn", card.name);
  if (card.mail) vcard.addPropertyWithValue("email", card.mail);
  if (card.phone) {
    const tel = new ICAL.Property("tel", vcard);
    tel.resetType("text");
    tel.setValue(card.phone);
    vcard.addProperty(tel);
  }
  for (const site of card.sites) {
    const adr = new ICAL.Property("adr", vcard);
    adr.setValue(["", "", site.line, "", "", site.postcode, ""]);
    if (site.name) adr.setParameter("label", site.name);
    vcard.addProperty(adr);
  }
  if (card.tags.length) {
    const categories = new ICAL.Property("categories", vcard);
    categories.setValues([...card.tags]);
    vcard.addProperty(categories);
  }
  if (card.technicianNote) vcard.addPropertyWithValue("note", card.technicianNote);
  return `${vcard.toString()}\r\n`;
}
