import { AsyncLocalStorage } from "node:async_hooks";

const current = new AsyncLocalStorage<string>();

/** Everything that is logged while `run` runs belongs to this request. */
export const withinRequest = <R>(id: string, run: () => R): R => current.run(id, run);

/** The request that is being answered, or null outside of one. */
export const requestId = (): string | null => current.getStore() ?? null;
