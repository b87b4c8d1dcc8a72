import type { Static, TSchema } from "@sinclair/typebox";
import { may } from "@/core/people/permissions";
import { Refusal } from "@/core/problems";
import { checkInput } from "./check-input";
import { actorWords, viewContext, type Operation, type ViewContext } from "./door";

/**
 * What would be if an operation were done: it is done, looked at and taken back, all within one
 * transaction. So a preview is computed by the very code that decides afterwards. Refusals of the
 * operation come out as they would.
 */
export function rehearse<S extends TSchema, R, T>(
  { hogar, actor }: ViewContext,
  operation: Operation<S, R>,
  input: Static<S>,
  look: (context: ViewContext, done: R) => T,
): T {
  if (!may(actor, operation.access)) throw new Refusal("not-allowed");
  const { db, audit } = hogar.store;
  const days = hogar.days.mark();
  const seen: { value?: T } = {};
  try {
    db.transaction(() => {
      const context = { ...viewContext(hogar, actor), later: () => {} };
      const done = audit.under(
        { at: context.now, actor: actorWords(actor), operation: `rehearse ${operation.name}` },
        () => operation.run(context, checkInput(operation.input, input)),
      );
      seen.value = look(viewContext(hogar, actor), done);
      throw new TakenBack();
    })();
  } catch (error) {
    if (!(error instanceof TakenBack)) throw error;
  } finally {
    days.back();
  }
  return seen.value as T;
}

class TakenBack extends Error {}
