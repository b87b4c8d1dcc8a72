import type { Actor } from "@/core/people/permissions";
import type { Result } from "@/core/problems";
import { type Origin, refused } from "@/kernel/operation";
import { withinRequest } from "@/kernel/request-id";
import { addressOf, answer, jsonOf, limit } from "./guard";
import { originOf } from "./origin";
import { actorOf } from "./session";

// A file of zones comes as one request.
const largestOfOffice = 8_000_000;

/** A request of our own pages: counted, read and answered as somebody. Whatever is thrown comes back as a problem. */
export const guarded = (
  request: Request,
  run: (actor: Actor, input: unknown, origin: Origin) => Result<unknown>,
  frontDoorLimit: "frontDoor" | "scarce" = "frontDoor",
): Promise<Response> =>
  answered(request, async () => {
    const actor = await actorOf(request);
    await (actor.kind === "person"
      ? limit("office", `person ${actor.id}`)
      : limit(frontDoorLimit, addressOf(request.headers)));
    const input = await jsonOf(request, actor.kind === "person" ? largestOfOffice : undefined);
    return run(actor, input, originOf(request));
  });

/** Answers with what `run` finds, under the request's number. */
export const answered = (request: Request, run: () => Promise<Result<unknown>>): Promise<Response> =>
  withinRequest(request.headers.get("x-request-id") ?? "", async () => {
    try {
      return answer(await run());
    } catch (error) {
      return answer(refused(error));
    }
  });
