import type { Actor } from "@/core/people/permissions";
import type { Result } from "@/core/problems";
import { type Origin, refused } from "@/kernel/operation";
import { withinRequest } from "@/kernel/request-id";
import type { Answer, Asked } from "./body";
import { addressOf, answerOf, asResponse, jsonAsked, limit } from "./guard";
import { originOf } from "./origin";
import { actorOf } from "./session";

// A file of zones comes as one request.
const largestOfOffice = 8_000_000;

/** A request of our own pages: counted, read and answered as somebody. Whatever is thrown comes back as a problem. */
export const guarded = (
  asked: Asked,
  run: (actor: Actor, input: unknown, origin: Origin) => Result<unknown>,
  frontDoorLimit: "frontDoor" | "scarce" = "frontDoor",
): Promise<Answer> =>
  within(asked, async () => {
    const actor = await actorOf(asked);
    await (actor.kind === "person"
      ? limit("office", `person ${actor.id}`)
      : limit(frontDoorLimit, addressOf(asked.headers)));
    const input = await jsonAsked(asked, actor.kind === "person" ? largestOfOffice : undefined);
    return run(actor, input, originOf(asked));
  });

/** Answers with what `run` finds, under the request's number. */
export const answered = async (request: Request, run: () => Promise<Result<unknown>>): Promise<Response> =>
  asResponse(await within(request, run));

const within = (asked: Pick<Asked, "headers">, run: () => Promise<Result<unknown>>): Promise<Answer> =>
  withinRequest(asked.headers.get("x-request-id") ?? "", async () => {
    try {
      return answerOf(await run());
    } catch (error) {
      return answerOf(refused(error));
    }
  });
