import type { Actor } from "@/core/people/permissions";
import type { Hogar } from "./hogar";
import { viewContext, type ViewContext } from "./operation";

/** Something the worker does again and again. */
export interface ScheduledJob {
  name: string;
  /** When its turn comes among all that is due: the smaller first. */
  order: number;
  /** How often, by the business's clock; 0 is at every turn. */
  everyMs: number;
  /**
   * Works until `until` (of performance.now()) at the longest. Answers null when it is done for now; otherwise it is
   * called again at the next turn with what it answered as `from`.
   */
  run: (hogar: Hogar, until: number, from: number) => number | null | Promise<number | null>;
}

export const minuteMs = 60_000;

/** Who does what happens by itself. */
export const worker: Actor = { kind: "system", name: "worker" };

/** What is known now, as the worker sees it. */
export const seenByWorker = (hogar: Hogar): ViewContext => viewContext(hogar, worker);

/** All rows of a query about one subject (`@id`): what a piece of work depends on. */
export const rowsAbout = (query: string) => (hogar: Hogar, id: number) => hogar.store.sql(query).all({ id });

/** What a person reads of a subject (`@id`): the column `words` of a query. */
export const wordsAbout = (query: string) => (hogar: Hogar, id: number) =>
  hogar.store.sql<{ words: string }>(query).get({ id })?.words ?? `number ${id}`;
