import { may } from "@/core/people/permissions";
import { Refusal } from "@/core/problems";
import { checkInput } from "@/kernel/check-input";
import { input, OneOf } from "@/kernel/inputs";
import { jsonOf } from "@/server/guard";
import { answered } from "@/server/guarded";
import { beginCheck, howFar, stopCheck } from "@/server/checking";
import { actorOf } from "@/server/session";

const Asked = input({ what: OneOf(["begin", "look", "stop"]) });

/** The look at every row of the books: begun, looked after and stopped. It is no view, since it takes its time elsewhere. */
export const POST = (request: Request): Promise<Response> =>
  answered(request, async () => {
    if (!may(await actorOf(request), "money.see of all")) throw new Refusal("not-allowed");
    const { what } = checkInput(Asked, await jsonOf(request));
    if (what === "begin") return { ok: true, value: beginCheck() };
    if (what === "stop") stopCheck();
    return { ok: true, value: howFar() };
  });
