import { Refusal } from "@/core/problems";
import { operationNamed } from "@/operations";
import { perform, refused } from "@/operations/door";
import { addressOf, answer, jsonOf, limit } from "@/app/server/guard";
import { getHogar } from "@/app/server/hogar";
import { actorOf } from "@/app/server/session";

/** Every change from outside: an operation by name, its input as JSON. */
export async function POST(request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  try {
    const { name } = await params;
    const actor = await actorOf(request);
    await limit(actor.kind === "person" ? "office" : "frontDoor", actor.kind === "person" ? `person ${actor.id}` : addressOf(request));
    const input = await jsonOf(request);
    const operation = operationNamed(name);
    if (!operation) throw new Refusal("not-found");
    return answer(perform(getHogar(), operation, input, actor));
  } catch (error) {
    return answer(refused(error));
  }
}
