import type { Hogar } from "@/kernel/hogar";
import { type Rows } from "@/store/rows";
import { type Effect, effects } from "./effects";

/**
 * The durable outbox. An effect is leased, carried out, and marked done after its outcome has been
 * taken down. If the process dies in between, the lease runs out and the effect is done again under
 * the same key, which the gateway answers with the first outcome.
 */
const mostAttempts = 8;
const pauseMs = (attempts: number): number => Math.min(2_000 * 3 ** (attempts - 1), 3_600_000);

type OutboxRow = Pick<Rows["outbox"], "id" | "kind" | "key" | "payload" | "attempts"> & { was_leased: number };

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
      `UPDATE outbox SET state = 'leased', leased_until = @until, attempts = attempts + 1,
          last_problem = CASE state WHEN 'leased' THEN 'interrupted' ELSE last_problem END
        WHERE id = (SELECT id FROM outbox WHERE state IN ('ready', 'leased') AND run_after <= @now AND (state = 'ready' OR leased_until < @real) ORDER BY run_after, id LIMIT 1)
        RETURNING id, kind, key, payload, attempts, coalesce(last_problem = 'interrupted', 0) AS was_leased`,
    )
    .get({ until: Date.now() + leaseMs, now: now(), real: Date.now() });
}

async function attempt(hogar: Hogar, row: OutboxRow): Promise<void> {
  const { sql } = hogar.store;
  const end = (state: "done" | "given up", problem: string | null) =>
    sql(
      // What is over needs its card tokens and its words no more.
      `UPDATE outbox SET state = @state, leased_until = NULL, last_problem = @problem, ended_at = @now, payload = '{}'
        WHERE id = @id`,
    ).run({ state, problem, now: hogar.now(), id: row.id });
  const kind = effects[row.kind];
  if (!kind) return void end("given up", `Nobody knows how to do “${row.kind}”`);
  let effect: Effect;
  try {
    effect = kind(hogar, row.payload);
  } catch (error) {
    return void end("given up", wordsOf(error));
  }
  const giveUp = (problem: string) => {
    end("given up", problem);
    effect.giveUp();
  };
  if (row.was_leased && !effect.repeatable)
    return giveUp("It is not known whether this was done before the application stopped");
  try {
    await effect.carryOut(row.key);
    end("done", null);
  } catch (error) {
    if (row.attempts >= mostAttempts) return giveUp(wordsOf(error));
    sql(
      `UPDATE outbox SET state = 'ready', leased_until = NULL, last_problem = @problem, run_after = @after
        WHERE id = @id`,
    ).run({ problem: wordsOf(error), after: hogar.now() + pauseMs(row.attempts), id: row.id });
  }
}

const wordsOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
