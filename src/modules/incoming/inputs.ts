import { Id, input, OneOf } from "@/kernel/inputs";

/** What waits for a person: a booking by its job, a request, or a quote. */
export const IncomingEntry = input({ kind: OneOf(["booking", "request", "quote"]), id: Id });
/** The same, and a repeat that needs a person: somebody takes it on. */
export const TakenOn = input({ kind: OneOf(["booking", "request", "quote", "repeat"]), id: Id });
