import { type Access, type Actor, may } from "@/core/people/permissions";
import type { Result } from "@/core/problems";
import type { Static, TSchema } from "@sinclair/typebox";
import { checkInput } from "./check-input";
import type { Hogar } from "./hogar";
import { notAllowed, refused, viewContext, type ViewContext } from "./operation";
import { type About, mustBeTheirs } from "./subjects";

/** What a screen or a question reads. The same door as for operations, without the changing: input is checked, permission too. */
export interface View<S extends TSchema = TSchema, R = unknown> {
  name: string;
  access: Access;
  /** Whose things its input names; a table test asks for it. */
  about?: About;
  input: S;
  read: (context: ViewContext, input: Static<S>) => R;
}

export const defineView = <S extends TSchema, R>(view: View<S, R>): View<S, R> => view;

/** Reads a view for somebody: all of it from one snapshot of the data. */
export function look<S extends TSchema, R>(hogar: Hogar, view: View<S, R>, input: unknown, actor: Actor): Result<R> {
  try {
    if (!may(actor, view.access)) throw notAllowed(actor, view.access);
    const checked = checkInput(view.input, input);
    const read = hogar.store.db.transaction(() => {
      const context = viewContext(hogar, actor);
      mustBeTheirs(context, view.about, checked);
      return view.read(context, checked);
    });
    return { ok: true, value: read() };
  } catch (error) {
    return refused(error);
  }
}
