import type { Actor } from "@/core/people/permissions";
import type { Result } from "@/core/problems";
import { refused } from "@/kernel/operation";
import { addressOf, answer, jsonOf, limit } from "./guard";
import { actorOf } from "./session";

// A file of zones comes as one request.
const largestOfOffice = 8_000_000;

/** A request of our own pages: counted, read and answered as somebody. Whatever is thrown comes back as a problem. */
export async function guarded(
  request: Request,
  run: (actor: Actor, input: unknown) => Result<unknown>,
  frontDoorLimit: "frontDoor" | "scarce" = "frontDoor",
): Promise<Response> {
  try {
    const actor = await actorOf(request);
    await (actor.kind === "person" ? limit("office", `person ${actor.id}`) : limit(frontDoorLimit, addressOf(request)));
    return answer(run(actor, await jsonOf(request, actor.kind === "person" ? largestOfOffice : undefined)));
  } catch (error) {
    return answer(refused(error));
  }
}
