import { notFound, redirect } from "next/navigation";
import type { TSchema, Static } from "@sinclair/typebox";
import { look, type View } from "@/views/view";
import { getHogar } from "./hogar";
import { homeOf } from "@/operations/people";
import { mustBeSignedIn } from "./session";

/** For pages of the office and the field: reads a view as the person who is signed in. */
export async function read<S extends TSchema, R>(view: View<S, R>, input: Static<S>, back: string): Promise<R> {
  const actor = await mustBeSignedIn(back);
  const result = look(getHogar(), view, input, actor);
  if (result.ok) return result.value;
  if (result.problem.code === "not-allowed") redirect(homeOf(actor));
  if (result.problem.code === "not-found" || result.problem.code === "invalid-input") notFound();
  throw new Error(result.problem.sentence);
}
