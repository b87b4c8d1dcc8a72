import { type Access, type Actor, may } from "@/core/people/permissions";
import { Refusal, type Result } from "@/core/problems";
import { localDate } from "@/core/time/local";
import { writeTimesBy } from "@/core/time/words";
import { type BusinessRow, readBusiness } from "@/store/business";
import { markCaches, sqliteCode, type Store } from "@/store/database";
import { insertOnce } from "@/store/insert";
import type { Rows } from "@/store/rows";
import type { Static, TSchema } from "@sinclair/typebox";
import { checkInput } from "./check-input";
import type { Hogar } from "./hogar";
import { lastChange, mustBeUnchanged } from "./meanwhile";
import { requestId } from "./request-id";
import { logSecurity } from "./security-log";
import { type About, mustBeTheirs } from "./subjects";

/**
 * The one door through which data changes. An operation is validated, permitted, run in one
 * immediate transaction and written to the audit; what it wants done outside is put into the outbox
 * within that same transaction, for the worker to carry out afterwards.
 */
export interface Operation<S extends TSchema = TSchema, R = unknown> {
  name: string;
  access: Access;
  /** Whose things its input names; a table test asks for it. */
  about?: About;
  input: S;
  run: (context: OperationContext, input: Static<S>) => R;
}

/** What views get: reading only. */
export interface ViewContext {
  hogar: Hogar;
  sql: Store["sql"];
  actor: Actor;
  /** Epoch milliseconds. */
  now: number;
  /** Epoch minutes. */
  minute: number;
  /** Local date of the business. */
  today: string;
  business: BusinessRow;
  origin: Origin;
}

/** Where a request came from, as keyed hashes: told apart and counted, never read. Null where it is not known or not asked. */
export interface Origin {
  address: string | null;
  browser: string | null;
  /** The network address itself, for the log of the lock alone; empty where it is not known. */
  network: string;
  /** The last change that whoever sends a form can have known of, as the audit numbers it: what was saved of the same since is not written over. */
  since?: number | undefined;
}
export const ownOrigin: Origin = { address: null, browser: null, network: "" };

/** Something to be done outside, once per key. */
interface Later {
  kind: string;
  key: string;
  payload: object;
  /** In which lane it waits: beside those that go the same way. */
  lane: Rows["outbox"]["lane"];
  afterMs?: number;
}

export interface OperationContext extends ViewContext {
  /** Asks the worker to do something outside after the commit, once per key. */
  later: (effect: Later) => void;
}

export const defineOperation = <S extends TSchema, R>(operation: Operation<S, R>): Operation<S, R> => operation;

/** Runs an operation for somebody. Refusals come back as problems; nothing is changed then. */
export function perform<S extends TSchema, R>(
  hogar: Hogar,
  operation: Operation<S, R>,
  input: unknown,
  actor: Actor,
  origin: Origin = ownOrigin,
): Result<R> {
  if (!may(actor, operation.access)) return refused(notAllowed(actor, operation.access));
  const { db, audit, sql } = hogar.store;
  let woken = false;
  const caches = markCaches(hogar.store);
  try {
    const checked = checkInput(operation.input, input);
    const transaction = db.transaction(() => {
      const seen = viewContext(hogar, actor, origin);
      mustBeTheirs(seen, operation.about, checked);
      if (origin.since !== undefined) mustBeUnchanged(hogar.store, operation.name, checked, origin.since);
      const context: OperationContext = {
        ...seen,
        later({ kind, key, payload, lane, afterMs = 0 }) {
          insertOnce(sql, "outbox", {
            kind,
            key,
            lane,
            asked_at: context.now,
            payload: JSON.stringify(payload),
            state: "ready",
            attempts: 0,
            run_after: context.now + afterMs,
          });
          woken = true;
        },
      };
      const value = audit.under({ at: context.now, actor: actorWords(actor), operation: operation.name }, () =>
        operation.run(context, checked),
      );
      return { value, ...(origin.since !== undefined && { asOf: lastChange(hogar.store) }) };
    });
    const done = hogar.inTurn(() => transaction.immediate());
    if (woken) hogar.wake();
    return { ok: true, ...done };
  } catch (error) {
    caches.back();
    if (error instanceof Refusal && error.security)
      logSecurity(hogar.store, hogar.now(), { ...error.security, address: origin.network });
    return refused(error);
  }
}

/** The same for callers that cannot go on after a refusal: the CLI, the demo, tests. */
export function mustPerform<S extends TSchema, R>(
  hogar: Hogar,
  operation: Operation<S, R>,
  input: Static<S>,
  actor: Actor,
): R {
  const result = perform(hogar, operation, input, actor);
  if (!result.ok)
    throw new Error(
      `${operation.name}: ${result.problem.sentence} ${JSON.stringify(result.problem.fields ?? result.problem.details ?? "")}`,
    );
  return result.value;
}

/** Why somebody may not: not signed in, signed in as somebody else than the link's customer, or without the right. */
export const notAllowed = (actor: Actor, access: Access): Refusal =>
  new Refusal(
    actor.kind === "visitor"
      ? "not-signed-in"
      : access === "link" && actor.kind === "person"
        ? "as-person"
        : "not-allowed",
  );

export function viewContext(hogar: Hogar, actor: Actor, origin: Origin = ownOrigin): ViewContext {
  const business = readBusiness(hogar.store);
  if (!business)
    throw new Refusal("not-found", { sentence: "The business is not set up yet. Run `npm run hogar -- init`." });
  writeTimesBy(business.clock_hours);
  const now = hogar.now();
  const minute = Math.floor(now / 60_000);
  const today = localDate(minute, business.time_zone);
  return { hogar, sql: hogar.store.sql, actor, now, minute, today, business, origin };
}

/** Turns what was thrown into a problem; what is not a refusal is kept for the log and told in general words. */
export function refused(error: unknown): { ok: false; problem: Refusal["problem"] } {
  if (error instanceof Refusal) return { ok: false, problem: error.problem };
  const busy = sqliteCode(error)?.startsWith("SQLITE_BUSY");
  if (busy) return { ok: false, problem: new Refusal("busy").problem };
  const request = requestId();
  console.error(...(request ? [`request ${request}`] : []), error);
  const { sentence } = new Refusal("unexpected").problem;
  return {
    ok: false,
    problem: { code: "unexpected", sentence: request ? `${sentence} If you call us, name ${request}.` : sentence },
  };
}

export function actorWords(actor: Actor): string {
  switch (actor.kind) {
    case "person":
      return `person ${actor.id} ${actor.name}`;
    case "link":
      return `customer ${actor.customerId} by link ${actor.linkId}`;
    case "visitor":
      return "visitor";
    case "system":
      return `system ${actor.name}`;
  }
}
