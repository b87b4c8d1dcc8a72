import { addDays } from "@/core/time/dates";
import { sealedToken } from "@/kernel/links";
import { mustPerform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { saveCollection } from "@/modules/collection/operations/choices";
import { collectionRun } from "@/modules/collection/views/collection";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { runDue } from "@/worker/loop";
import { office, one, smallWorld } from "./small-world";

export const good = "9900000000001006";
export const declined = "9900000000002004";
export const lost = "9900000000002103";
export const asks = "9900000000003002";
export const collectionRules = {
  on: true,
  weekdays: 31,
  at: 540,
  daysPastDue: 0,
  smallestMinor: 0,
  cards: 2,
  again: [3],
};

/** Somebody who owes €79.00, due on Wednesday, 24 March 2027, with cards that may be charged in this order; what is due is collected on workdays at nine. */
export function owing<W extends ReturnType<typeof smallWorld>>(
  numbers: string[] = [good],
  change: Partial<typeof collectionRules> = {},
  w = smallWorld() as W,
) {
  const { actor, visitId, jobId } = w.booked();
  w.onTheDayOf(visitId);
  for (const to of ["on site", "done"] as const) mustPerform(w.hogar, advanceVisit, { visitId, to }, office);
  const { sql, db, audit } = w.hogar.store;
  const changed = (work: () => void) =>
    db.transaction(() => audit.under({ at: 1, actor: "test", operation: "test" }, work))();
  changed(() => {
    for (const [i, number] of numbers.entries())
      sql(
        "INSERT INTO cards (customer_id, job_id, reference, label, kept_at, collects, position) VALUES (?, ?, ?, ?, 1, 1, CAST(? AS INTEGER))",
      ).run(actor.customerId, jobId, w.hogar.standins!.cards.tokenFor(number)!, `card ${i + 1}`, i);
  });
  mustPerform(w.hogar, saveCollection, { ...collectionRules, ...change }, office);
  const due = one<{ due: string }>(w.hogar, "SELECT due_date AS due FROM invoices").due;
  /** The worker's turn at nine and a minute on each day up to this one. */
  let day = "2027-03-20";
  const until = async (date: string) => {
    while (day < date) {
      day = addDays(day, 1);
      w.at(day, 541);
      // The asking, its answer and what follows from it each take a turn.
      for (let turn = 0; turn < 4; turn++) await runDue(w.hogar);
    }
  };
  const open = () => one<{ n: number }>(w.hogar, "SELECT open_minor AS n FROM invoice_balances").n;
  const charged = () =>
    w.hogar
      .standins!.cards.charges()
      .filter(({ state }) => state === "received")
      .map(({ amount_minor }) => amount_minor);
  const said = (occasion: string) =>
    sql<{ n: number }>("SELECT count(*) AS n FROM messages WHERE channel = 'mail' AND occasion LIKE ? || ' %'").get(
      occasion,
    )!.n;
  const report = (date: string) => {
    const view = look(w.hogar, collectionRun, { date }, office);
    return view.ok ? view.value.rows : [];
  };
  const token = sealedToken(w.hogar, { kind: "invoice", id: 1 });
  return { ...w, actor, jobId, due, until, open, charged, said, report, token, changed };
}
