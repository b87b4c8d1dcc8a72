import { Refusal } from "@/core/problems";
import { refused } from "@/operations/door";
import { isPurpose, takeImage } from "@/operations/images";
import { addressOf, answer, bytesOf, limit } from "@/app/server/guard";
import { getHogar } from "@/app/server/hogar";
import { actorOf } from "@/app/server/session";

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
