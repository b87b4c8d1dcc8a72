import type { Actor } from "@/core/people/permissions";
import type { Result } from "@/core/problems";
import { homeOf } from "@/registry/routes";
import { lookAt, type ViewInput, type ViewName, type ViewOutput } from "@/registry/views";
import { notFound, redirect } from "next/navigation";
import { getHogar } from "./hogar";
import { mustBeSignedIn } from "./session";

/** For pages of the office and the field: reads a view as the person who is signed in. */
export async function read<N extends ViewName>(name: N, input: ViewInput<N>, back: string): Promise<ViewOutput<N>> {
  const actor = await mustBeSignedIn(back);
  const result = readAs(name, input, actor);
  if (result.ok) return result.value;
  if (result.problem.code === "not-allowed") redirect(homeOf(actor));
  if (result.problem.code === "not-found" || result.problem.code === "invalid-input") notFound();
  throw new Error(result.problem.sentence);
}

/** The same as somebody: for pages that customers and visitors open. */
export const readAs = <N extends ViewName>(name: N, input: ViewInput<N>, actor: Actor): Result<ViewOutput<N>> =>
  lookAt(getHogar(), name, input, actor);
