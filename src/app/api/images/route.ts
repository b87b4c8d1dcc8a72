import { Refusal } from "@/core/problems";
import { isPurpose, takeImage } from "@/registry/routes";
import { addressOf, imageOf, limit } from "@/server/guard";
import { answered } from "@/server/guarded";
import { getHogar } from "@/server/hogar";
import { originOf } from "@/server/origin";
import { actorOf } from "@/server/session";

/** A picture is sent, as it is: `?purpose=`. Answers the token under which it is kept. */
export const POST = (request: Request): Promise<Response> =>
  answered(request, async () => {
    const actor = await actorOf(request);
    await limit("images", actor.kind === "person" ? `person ${actor.id}` : addressOf(request.headers));
    const purpose = new URL(request.url).searchParams.get("purpose");
    if (!isPurpose(purpose)) throw new Refusal("bad-request");
    return takeImage(getHogar(), actor, purpose, await imageOf(request), originOf(request));
  });
