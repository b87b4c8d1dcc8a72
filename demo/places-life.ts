import { addDays } from "@/core/time/dates";
import type { Hogar } from "@/kernel/hogar";
import { mustPerform, viewContext } from "@/kernel/operation";
import { bookInOffice } from "@/modules/booking/operations/book-in-office";
import { findWanted } from "@/modules/booking/wanted";
import { answersFor } from "@/modules/placing/windows";
import { addressAt } from "@/modules/place/addresses";
import { office } from "./set-up";

/** What is booked for which nobody drives to the customer: code, seats, days ahead. */
const booked: [code: string, seats: number, inDays: number][] = [
  ["GC", 1, 10],
  ["AC", 1, 10],
  ["AC", 1, 11],
  ["LL", 2, 9],
  ["LL", 1, 9],
  ["LL", 2, 9],
];

/** Customers who bring something in, have a call, or sit together in a lesson, in the days after next week. */
export function bookElsewhere(hogar: Hogar): void {
  const customers = hogar.store
    .sql<{ id: number; line: string; postcode: string; lng: number; lat: number }>(
      `SELECT c.id, s.line, s.postcode, s.lng, s.lat FROM customers c JOIN sites s ON s.customer_id = c.id
        WHERE c.merged_into IS NULL AND c.erased_at IS NULL AND c.archived_at IS NULL GROUP BY c.id ORDER BY c.id LIMIT 40`,
    )
    .all();
  for (const [i, [code, quantity, inDays]] of booked.entries()) {
    const context = viewContext(hogar, office);
    const { id } = hogar.store.sql<{ id: number }>("SELECT id FROM services WHERE code = ?").get(code)!;
    const customer = customers[3 + i * 5]!;
    const asked = { addressId: addressAt(context, customer)!.id, items: [{ serviceId: id, quantity }] };
    const dates = Array.from({ length: 7 }, (_, n) => addDays(context.today, inDays + n));
    const window = answersFor(context, findWanted(context, asked).visit, dates).find((a) => a.offered);
    if (!window) continue;
    const { date, from, to } = window;
    mustPerform(hogar, bookInOffice, { ...asked, date, from, to, customer: { id: customer.id }, note: "" }, office);
  }
}
