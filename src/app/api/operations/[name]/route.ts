import { Refusal } from "@/core/problems";
import { perform, refused } from "@/kernel/operation";
import { operationNamed } from "@/registry/operations";
import { guarded } from "@/server/guarded";
import { getHogar } from "@/server/hogar";

/** A hold takes room from others, and somebody reads every request. */
const scarce = new Set(["hold-offer", "make-request"]);

/** Every change from outside: an operation by name, its input as JSON. */
export async function POST(request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  const { name } = await params;
  const operation = operationNamed(name);
  return guarded(
    request,
    (actor, input, origin) =>
      operation ? perform(getHogar(), operation, input, actor, origin) : refused(new Refusal("not-found")),
    scarce.has(name) ? "scarce" : "frontDoor",
  );
}
