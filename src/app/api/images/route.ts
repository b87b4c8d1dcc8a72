import { Refusal } from "@/core/problems";
import { refused } from "@/kernel/operation";
import { isPurpose, takeImage } from "@/registry/routes";
import { addressOf, answer, bytesOf, limit } from "@/server/guard";
import { getHogar } from "@/server/hogar";
import { actorOf } from "@/server/session";

/** A picture is sent, as it is: `?purpose=`. Answers the token under which it is kept. */
export async function POST(request: Request): Promise<Response> {
  try {
    const actor = await actorOf(request);
    await limit("images", actor.kind === "person" ? `person ${actor.id}` : addressOf(request));
    const purpose = new URL(request.url).searchParams.get("purpose");
    if (!isPurpose(purpose)) throw new Refusal("bad-request");
    return answer(await takeImage(getHogar(), actor, purpose, await bytesOf(request)));
  } catch (error) {
    return answer(refused(error));
  }
}
