import { always, defineEffect, nothing } from "@/kernel/effects";

/** Pages of the index of customers that are merged in one transaction. */
const pagesMerged = 64;

/** What was erased must not live on beside the rows: the index's segments are merged into one, and the database's log is written back and emptied. */
export const forgetTraces = defineEffect<object>({}, ({ store: { db } }) => ({
  repeatable: true,
  async carryOut() {
    const merge = db.prepare(
      "INSERT INTO customer_search (customer_search, rank) VALUES ('merge', CAST(? AS INTEGER))",
    );
    const changes = db.prepare("SELECT total_changes()").pluck();
    // A negative number begins with all segments; as SQLite says, less than two changes mean that nothing is left to merge.
    for (let [pages, before] = [-pagesMerged, -2]; (changes.get() as number) - before >= 2; pages = pagesMerged) {
      before = changes.get() as number;
      merge.run(pages);
      await new Promise(setImmediate);
    }
    const [{ busy }] = db.pragma("wal_checkpoint(TRUNCATE)") as [{ busy: number }];
    if (busy) throw new Error("The log is being read and is emptied later");
  },
  triedUntil: always,
  giveUp: nothing,
}));
