import { type Access, type Actor, may } from "@/core/people/permissions";
import { Refusal, type Result } from "@/core/problems";
import type { Static, TSchema } from "@sinclair/typebox";
import { checkInput } from "./check-input";
import type { Hogar } from "./hogar";
import { refused, viewContext, type ViewContext } from "./operation";

/** What a screen or a question reads. The same door as for operations, without the changing: input is checked, permission too. */
export interface View<S extends TSchema = TSchema, R = unknown> {
  name: string;
  access: Access;
  input: S;
  read: (context: ViewContext, input: Static<S>) => R;
}

export const defineView = <S extends TSchema, R>(view: View<S, R>): View<S, R> => view;

/** Reads a view for somebody: all of it from one snapshot of the data. */
export function look<S extends TSchema, R>(hogar: Hogar, view: View<S, R>, input: unknown, actor: Actor): Result<R> {
  try {
    if (!may(actor, view.access)) throw new Refusal(actor.kind === "visitor" ? "not-signed-in" : "not-allowed");
    const checked = checkInput(view.input, input);
    return { ok: true, value: hogar.store.db.transaction(() => view.read(viewContext(hogar, actor), checked))() };
  } catch (error) {
    return refused(error);
  }
}
