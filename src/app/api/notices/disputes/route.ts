import { Refusal } from "@/core/problems";
import { perform } from "@/kernel/operation";
import { recordDispute } from "@/registry/routes";
import { bodyOf, jsonFrom } from "@/server/body";
import { answered } from "@/server/guarded";
import { getHogar } from "@/server/hogar";

/** The card gateway's notice of a dispute, signed by it. */
export const POST = (request: Request): Promise<Response> =>
  answered(request, async () => {
    const hogar = getHogar();
    const body = (await bodyOf(request, 10_000, "bad-request")).toString("utf8");
    if (!hogar.gateways.cards?.isGenuine(body, request.headers.get("x-signature") ?? ""))
      throw new Refusal("bad-request");
    return perform(hogar, recordDispute, jsonFrom(body), { kind: "system", name: "card gateway" });
  });
