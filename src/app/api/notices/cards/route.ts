import { Refusal } from "@/core/problems";
import { perform } from "@/kernel/operation";
import { recordCharge } from "@/registry/routes";
import { bodyOf, jsonFrom } from "@/server/body";
import { answered } from "@/server/guarded";
import { getHogar } from "@/server/hogar";

/** The card gateway's notice of how a charge ended, signed by it. */
export const POST = (request: Request): Promise<Response> =>
  answered(request, async () => {
    const hogar = getHogar();
    const body = (await bodyOf(request, 10_000, "bad-request")).toString("utf8");
    if (!hogar.gateways.cards?.isGenuine(body, request.headers.get("x-signature") ?? ""))
      throw new Refusal("bad-request");
    const { key, outcome } = jsonFrom(body) as { key: string; outcome: unknown };
    return perform(hogar, recordCharge, { chargeKey: key, outcome }, { kind: "system", name: "card gateway" });
  });
