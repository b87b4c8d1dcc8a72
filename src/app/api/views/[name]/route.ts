import { Refusal } from "@/core/problems";
import { refused } from "@/operations/door";
import { viewNamed } from "@/views";
import { look } from "@/views/view";
import { addressOf, answer, jsonOf, limit } from "@/app/server/guard";
import { getHogar } from "@/app/server/hogar";
import { actorOf } from "@/app/server/session";

/** Every question from a page: a view by name. Asked with POST, so that nothing personal stands in an address. */
export async function POST(request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  try {
    const { name } = await params;
    const actor = await actorOf(request);
    await limit(actor.kind === "person" ? "office" : "frontDoor", actor.kind === "person" ? `person ${actor.id}` : addressOf(request));
    const input = await jsonOf(request);
    const view = viewNamed(name);
    if (!view) throw new Refusal("not-found");
    return answer(look(getHogar(), view, input, actor));
  } catch (error) {
    return answer(refused(error));
  }
}
