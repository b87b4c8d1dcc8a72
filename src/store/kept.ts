import type { Store } from "./database";

/**
 * What is kept in memory for as long as the database is open, by a name of its own. It hangs on the open database, since
 * the server loads its modules more than once: whoever asks, gets the same.
 */
export function keptWith<T>({ kept }: Pick<Store, "kept">, name: string, make: () => T): T {
  if (!kept.has(name)) kept.set(name, make());
  return kept.get(name) as T;
}
