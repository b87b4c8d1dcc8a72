import { Refusal } from "@/core/problems";
import { operationNamed } from "@/operations";
import { perform, refused } from "@/operations/door";
import { guarded } from "@/app/server/guarded";
import { getHogar } from "@/app/server/hogar";

/** Every change from outside: an operation by name, its input as JSON. */
export async function POST(request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  const { name } = await params;
  const operation = operationNamed(name);
  return guarded(request, (actor, input) => (operation ? perform(getHogar(), operation, input, actor) : refused(new Refusal("not-found"))), name === "hold-offer" ? "holds" : "frontDoor");
}
