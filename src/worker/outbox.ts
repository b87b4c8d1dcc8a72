import type { Hogar } from "@/kernel/hogar";
import { effects } from "./effects";

/**
 * The durable outbox. An effect is leased, carried out, and marked done after its outcome has been
 * taken down. If the process dies in between, the lease runs out and the effect is done again under
 * the same key, which the gateway answers with the first outcome.
 */
const mostAttempts = 8;
const pauseMs = (attempts: number): number => Math.min(2_000 * 3 ** (attempts - 1), 3_600_000);

interface OutboxRow {
  id: number;
  kind: string;
  key: string;
  payload: string;
  attempts: number;
  was_leased: number;
}

/** Carries out what is due, each within its own try: what fails waits or is given up, and the next goes on. Answers how many effects were tried. */
export async function drainOutbox(hogar: Hogar, leaseMs = 60_000): Promise<number> {
  let tried = 0;
  for (let row = lease(hogar, leaseMs); row; row = lease(hogar, leaseMs), tried++)
    await attempt(hogar, row).catch((error: unknown) => console.error(`outbox ${row.key}`, error));
  return tried;
}

/** Leases run by the real clock, due times by the business's. */
function lease({ store, now }: Hogar, leaseMs: number): OutboxRow | undefined {
  return store
    .sql<OutboxRow>(
      `UPDATE outbox SET state = 'leased', leased_until = @until, attempts = attempts + 1, last_problem = CASE state WHEN 'leased' THEN 'interrupted' ELSE last_problem END
     WHERE id = (SELECT id FROM outbox WHERE state IN ('ready', 'leased') AND run_after <= @now AND (state = 'ready' OR leased_until < @real) ORDER BY run_after, id LIMIT 1)
     RETURNING id, kind, key, payload, attempts, coalesce(last_problem = 'interrupted', 0) AS was_leased`,
    )
    .get({ until: Date.now() + leaseMs, now: now(), real: Date.now() });
}

async function attempt(hogar: Hogar, row: OutboxRow): Promise<void> {
  const { sql } = hogar.store;
  const effect = effects[row.kind];
  const giveUp = (problem: string) => {
    sql("UPDATE outbox SET state = 'given up', leased_until = NULL, last_problem = ?, ended_at = ? WHERE id = ?").run(
      problem,
      hogar.now(),
      row.id,
    );
    effect?.giveUp(hogar, JSON.parse(row.payload) as never, problem);
  };
  if (!effect) return giveUp(`Nobody knows how to do “${row.kind}”`);
  try {
    const payload = JSON.parse(row.payload) as never;
    if (row.was_leased && !effect.repeatable(hogar, payload))
      return giveUp("It is not known whether this was done before the application stopped");
    await effect.carryOut(hogar, payload, row.key);
    sql("UPDATE outbox SET state = 'done', leased_until = NULL, last_problem = NULL, ended_at = ? WHERE id = ?").run(
      hogar.now(),
      row.id,
    );
  } catch (error) {
    const problem = error instanceof Error ? error.message : String(error);
    if (row.attempts >= mostAttempts) return giveUp(problem);
    sql("UPDATE outbox SET state = 'ready', leased_until = NULL, last_problem = ?, run_after = ? WHERE id = ?").run(
      problem,
      hogar.now() + pauseMs(row.attempts),
      row.id,
    );
  }
}
