import { markCaches } from "@/store/database";
import { actorWords, type OperationContext, viewContext, type ViewContext } from "./operation";

/**
 * What would be if a change were made: it is made, looked at and taken back, all within one
 * transaction. So a preview is computed by the very code that decides afterwards. Refusals of the
 * change come out as they would.
 */
export function rehearse<R, T>(
  { hogar, actor }: ViewContext,
  change: (context: OperationContext) => R,
  look: (context: ViewContext, done: R) => T,
): T {
  const { db, audit } = hogar.store;
  const caches = markCaches(hogar.store);
  const seen: { value?: T } = {};
  try {
    db.transaction(() => {
      const context = { ...viewContext(hogar, actor), later: () => {} };
      const done = audit.under({ at: context.now, actor: actorWords(actor), operation: "rehearse" }, () =>
        change(context),
      );
      seen.value = look(viewContext(hogar, actor), done);
      throw new TakenBack();
    })();
  } catch (error) {
    if (!(error instanceof TakenBack)) throw error;
  } finally {
    caches.back();
  }
  return seen.value as T;
}

class TakenBack extends Error {}
