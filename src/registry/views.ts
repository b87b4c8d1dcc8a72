import type { Actor } from "@/core/people/permissions";
import type { Result } from "@/core/problems";
import type { Hogar } from "@/kernel/hogar";
import { look, type View } from "@/kernel/view";
import type { Static } from "@sinclair/typebox";
import { ownViews } from "./modules";
import { touchedPromises } from "./touched-promises";

/** The views that can be asked for from outside, by name. */
export const views = { ...ownViews, "touched-promises": touchedPromises };

type Views = typeof views;
export type ViewName = keyof Views;
export type ViewInput<N extends ViewName> = Static<Views[N]["input"]>;
export type ViewOutput<N extends ViewName> = ReturnType<Views[N]["read"]>;

/** A view by its name as it came in, or null. */
export const viewNamed = (name: string): View | null =>
  Object.hasOwn(views, name) ? (views[name as ViewName] as unknown as View) : null;

/** Reads a view by its name, as somebody. */
export const lookAt = <N extends ViewName>(
  hogar: Hogar,
  name: N,
  input: ViewInput<N>,
  actor: Actor,
): Result<ViewOutput<N>> => look(hogar, views[name] as unknown as View, input, actor) as Result<ViewOutput<N>>;
