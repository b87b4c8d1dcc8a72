import { actorOfLink, linkTokenOf } from "@/kernel/links";
import type { Hogar } from "@/kernel/hogar";
import { mustPerform, viewContext } from "@/kernel/operation";
import { agreeCollection, saveCollection } from "@/modules/collection/operations/choices";
import { saveCustomer } from "@/modules/customers/operations/save-customer";
import { recordKeptCard } from "@/modules/money/operations/cards";
import { payoutIsThere } from "@/modules/money/operations/payouts";
import { localDate } from "@/core/time/local";
import * as marrowick from "./marrowick";
import { addDays } from "@/core/time/dates";
import { testCards } from "@/gateways/cards-standin";
import type { Rows } from "@/store/rows";
import { customerInput } from "./customer-input";
import { office } from "./set-up";

/** The cards of those who have agreed: most pay, one cannot, one is asked for another. */
const behaviours = ["pays", "pays", "pays", "declined", "pays", "pays", "lost", "pays", "pays", "pays"] as const;
const numbers = behaviours.map((behaviour) => testCards.find((card) => card.behaviour === behaviour)!.number);

/** What is due comes in by itself on workdays at nine, from some of those to whom we come in the next days: they pay the day after. */
export async function collectByItself(hogar: Hogar): Promise<void> {
  mustPerform(
    hogar,
    saveCollection,
    { on: true, weekdays: 31, at: 9 * 60, daysPastDue: 0, smallestMinor: 500, cards: 2, again: [3, 7] },
    office,
  );
  const { today } = viewContext(hogar, office);
  const cards = hogar.gateways.cards!;
  const between = (from: number, to: number, most: number) =>
    hogar.store
      .sql<Rows["customers"] & { jobId: number }>(
        `SELECT c.*, min(j.id) AS jobId FROM customers c JOIN jobs j ON j.customer_id = c.id JOIN visits v ON v.job_id = j.id
          WHERE c.merged_into IS NULL AND v.state = 'promised' AND v.date BETWEEN ? AND ? GROUP BY c.id ORDER BY c.id DESC LIMIT ?`,
      )
      .all(addDays(today, from), addDays(today, to), most);
  const soon = between(0, 3, numbers.length);
  const later = between(9, 20, 4).filter(({ id }) => !soon.some((one) => one.id === id));
  for (const [i, { jobId, ...customer }] of [...soon, ...later].entries()) {
    const link = actorOfLink(hogar, linkTokenOf(hogar, jobId) ?? "");
    if (!link) continue;
    const kept = await cards.keep(hogar.standins!.cards.tokenFor(numbers[i % numbers.length]!)!);
    if (kept) mustPerform(hogar, recordKeptCard, { customerId: customer.id, jobId, ...kept }, office);
    mustPerform(hogar, agreeCollection, { agreed: true }, link);
    mustPerform(hogar, saveCustomer, { ...customerInput(customer), paymentDays: 1 + (i % 4) }, office);
  }
}

/** Most of what was paid out stands on the bank's statement. */
export function bankTheEarlier(hogar: Hogar): void {
  const { today } = viewContext(hogar, office);
  const payouts = hogar.store
    .sql<{ id: number; paid_at: number }>("SELECT id, paid_at FROM payouts ORDER BY id")
    .all()
    .slice(0, -2);
  for (const { id, paid_at } of payouts) {
    const date = addDays(localDate(Math.floor(paid_at / 60_000), marrowick.business.timeZone), 1);
    mustPerform(hogar, payoutIsThere, { payoutId: id, date: date < today ? date : today }, office);
  }
}
