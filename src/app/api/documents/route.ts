import { may } from "@/core/people/permissions";
import { Refusal } from "@/core/problems";
import { keepDocument } from "@/registry/routes";
import { documentOf, limit } from "@/server/guard";
import { answered } from "@/server/guarded";
import { getHogar } from "@/server/hogar";
import { actorOf } from "@/server/session";

/** A document that is to go out with an email: `?name=`. Answers the token under which it is kept. */
export const POST = (request: Request): Promise<Response> =>
  answered(request, async () => {
    const actor = await actorOf(request);
    if (actor.kind !== "person" || !may(actor, "contacts.see")) throw new Refusal("not-allowed");
    await limit("images", `person ${actor.id}`);
    const name = new URL(request.url).searchParams.get("name") ?? "";
    return keepDocument(getHogar(), name, await documentOf(request), actor);
  });
