import type { Hogar } from "@/kernel/hogar";
import { type Rows } from "@/store/rows";
import { insertRow } from "@/store/insert";
import type { Effect, EffectKind } from "@/kernel/effects";
import { modules } from "@/registry/modules";

const effects: Readonly<Record<string, EffectKind>> = Object.assign({}, ...modules.map((module) => module.effects));

/**
 * The durable outbox. An effect is leased, carried out, and marked done after its outcome has been
 * taken down. If the process dies in between, the lease runs out and the effect is done again under
 * the same key, which the gateway answers with the first outcome.
 *
 * Each kind has a lane of its own, in which a few are carried out at once, what is due first first. One that takes too long is
 * left; a lane in which one after the other fails pauses, and is tried again by one alone.
 */
type LaneName = Rows["outbox"]["lane"];
interface Lane {
  atOnce: number;
  /** So long one may take, in milliseconds. */
  limitMs: number;
}
const lanes: Record<LaneName, Lane> = {
  cards: { atOnce: 4, limitMs: 30_000 },
  mail: { atOnce: 4, limitMs: 45_000 },
  text: { atOnce: 4, limitMs: 20_000 },
  voice: { atOnce: 2, limitMs: 20_000 },
  rest: { atOnce: 1, limitMs: 120_000 },
};
const laneNames = Object.keys(lanes) as LaneName[];

/** So long what is under way is waited for when the process is told to stop, in milliseconds. */
const closingMs = 3_000;

/** Between two tries: 2 s, 6 s, 18 s and so on, ten minutes at the most. */
const pauseMs = (attempts: number): number => Math.min(2_000 * 3 ** (attempts - 1), 600_000);
/** After so many failures in a row a lane pauses: 15 s, 30 s and so on, five minutes at the most. */
const failuresToPause = 5;
const lanePauseMs = (failures: number): number => Math.min(15_000 * 2 ** (failures - failuresToPause), 300_000);

type OutboxRow = Pick<Rows["outbox"], "id" | "kind" | "key" | "payload" | "attempts" | "asked_at"> & {
  was_leased: number;
};

/** Whoever did not answer in time may have done it, or may still do it. */
class TookTooLong extends Error {}

export interface Lanes {
  /** Begins what is due in every lane that has a place free. */
  begin: () => void;
  /** When nothing is under way any more: how many effects were tried. */
  idle: () => Promise<number>;
  /** Begins nothing more, and waits a little for what is under way: what hangs is done again later, under its lease. */
  close: () => Promise<void>;
}

/** The lanes of one process. `leaseMs`: how long nobody else tries what is under way; twice a lane's limit where none is given. */
export function openLanes(hogar: Hogar, leaseMs?: number): Lanes {
  const underWay = new Set<Promise<void>>();
  const places = new Map(laneNames.map((name) => [name, 0]));
  let tried = 0;
  let isOpen = true;

  const begin = () => {
    try {
      for (const name of laneNames) while (isOpen && hasPlace(name) && beginNext(name));
    } catch (error) {
      // The database was busy for long: the next turn begins it.
      console.error("outbox", error);
    }
  };
  const hasPlace = (name: LaneName): boolean => {
    const { failures = 0, paused_until = 0 } = stateOf(hogar, name) ?? {};
    if (paused_until > hogar.now()) return false;
    return places.get(name)! < (failures >= failuresToPause ? 1 : lanes[name].atOnce);
  };
  const beginNext = (name: LaneName): boolean => {
    const row = lease(hogar, name, leaseMs ?? 2 * lanes[name].limitMs);
    if (!row) return false;
    places.set(name, places.get(name)! + 1);
    tried++;
    const work: Promise<void> = attempt(hogar, name, row)
      .catch((error: unknown) => console.error(`outbox ${row.key}`, error))
      .finally(() => {
        underWay.delete(work);
        places.set(name, places.get(name)! - 1);
        begin();
      });
    underWay.add(work);
    return true;
  };
  return {
    begin,
    async idle() {
      while (underWay.size) await Promise.all(underWay);
      isOpen = false;
      return tried;
    },
    async close() {
      isOpen = false;
      await Promise.race([Promise.all(underWay), new Promise((resolve) => setTimeout(resolve, closingMs).unref())]);
    },
  };
}

/** Carries out what is due, each within its own try: what fails waits or is given up, and the next goes on. Answers how many effects were tried. */
export async function drainOutbox(hogar: Hogar, leaseMs?: number): Promise<number> {
  const { begin, idle } = openLanes(hogar, leaseMs);
  begin();
  return idle();
}

/** Leases run by the real clock, due times by the business's. */
function lease({ store, now }: Hogar, lane: LaneName, leaseMs: number): OutboxRow | undefined {
  return store
    .sql<OutboxRow>(
      `UPDATE outbox SET state = 'leased', leased_until = @until, attempts = attempts + 1,
          last_problem = CASE state WHEN 'leased' THEN 'interrupted' ELSE last_problem END
        WHERE id = (SELECT id FROM outbox WHERE lane = @lane AND state IN ('ready', 'leased') AND run_after <= @now
          AND (state = 'ready' OR leased_until < @real) ORDER BY run_after, id LIMIT 1)
        RETURNING id, kind, key, payload, attempts, asked_at, coalesce(last_problem = 'interrupted', 0) AS was_leased`,
    )
    .get({ lane, until: Date.now() + leaseMs, now: now(), real: Date.now() });
}

async function attempt(hogar: Hogar, lane: LaneName, row: OutboxRow): Promise<void> {
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
    effect = kind(hogar, row.payload, row.asked_at);
  } catch (error) {
    return void end("given up", wordsOf(error));
  }
  const giveUp = (problem: string, how: "failed" | "not known") => {
    end("given up", problem);
    effect.giveUp(how);
  };
  if (row.was_leased && !effect.repeatable)
    return giveUp("It is not known whether this was done before the application stopped", "not known");
  try {
    await within(lanes[lane].limitMs, effect.carryOut(row.key));
    end("done", null);
    works(hogar, lane);
  } catch (error) {
    const problem = wordsOf(error);
    fails(hogar, lane, problem);
    if (error instanceof TookTooLong && !effect.repeatable) return giveUp(problem, "not known");
    const after = hogar.now() + pauseMs(row.attempts);
    if (after >= effect.triedUntil) return giveUp(problem, "failed");
    sql(
      `UPDATE outbox SET state = 'ready', leased_until = NULL, last_problem = @problem, run_after = @after
        WHERE id = @id`,
    ).run({ problem, after, id: row.id });
  }
}

/** The outcome of some work, or none where that takes too long: it is left to itself then. */
async function within(limitMs: number, work: Promise<void>): Promise<void> {
  let timer: NodeJS.Timeout | undefined;
  const limit = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new TookTooLong("No answer came in time")), limitMs).unref();
  });
  try {
    await Promise.race([work, limit]);
  } finally {
    clearTimeout(timer);
  }
}

type LaneState = Rows["lanes"];

const stateOf = ({ store }: Hogar, lane: LaneName): LaneState | undefined =>
  store.sql<LaneState>("SELECT * FROM lanes WHERE lane = ?").get(lane);

const works = ({ store }: Hogar, lane: LaneName): void => void store.sql("DELETE FROM lanes WHERE lane = ?").run(lane);

function fails(hogar: Hogar, lane: LaneName, problem: string): void {
  const now = hogar.now();
  const failures = (stateOf(hogar, lane)?.failures ?? 0) + 1;
  insertRow(
    hogar.store.sql,
    "lanes",
    {
      lane,
      failures,
      failing_since: now,
      problem,
      paused_until: failures < failuresToPause ? 0 : now + lanePauseMs(failures),
    },
    "ON CONFLICT DO UPDATE SET failures = excluded.failures, problem = excluded.problem, paused_until = excluded.paused_until",
  );
}

const wordsOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
