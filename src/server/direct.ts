import { Refusal } from "@/core/problems";
import { perform, refused } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { operationNamed } from "@/registry/operations";
import { viewNamed } from "@/registry/views";
import type { Answer, Asked } from "./body";
import { guarded } from "./guarded";
import { getHogar } from "./hogar";

/** A hold takes room from others, and somebody reads every request. */
const scarce = new Set(["hold-offer", "make-request"]);

/** Every question from a page: a view by name. Asked with POST, so that nothing personal stands in an address. */
export function answerView(name: string, asked: Asked): Promise<Answer> {
  const view = viewNamed(name);
  return guarded(asked, (actor, input) =>
    view ? look(getHogar(), view, input, actor) : refused(new Refusal("not-found")),
  );
}

/** Every change from outside: an operation by name, its input as JSON. */
export function answerOperation(name: string, asked: Asked): Promise<Answer> {
  const operation = operationNamed(name);
  return guarded(
    asked,
    (actor, input, origin) =>
      operation ? perform(getHogar(), operation, input, actor, origin) : refused(new Refusal("not-found")),
    scarce.has(name) ? "scarce" : "frontDoor",
  );
}
