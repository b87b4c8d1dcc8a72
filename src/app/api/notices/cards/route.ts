import { Refusal } from "@/core/problems";
import { perform, refused } from "@/kernel/operation";
import { recordCharge } from "@/registry/routes";
import { answer } from "@/server/guard";
import { getHogar } from "@/server/hogar";

/** The card gateway's notice of how a charge ended, signed by it. */
export async function POST(request: Request): Promise<Response> {
  const hogar = getHogar();
  const body = await request.text();
  if (body.length > 10_000 || !hogar.gateways.cards.isGenuine(body, request.headers.get("x-signature") ?? ""))
    return answer(refused(new Refusal("bad-request")));
  const { key, outcome } = JSON.parse(body) as { key: string; outcome: unknown };
  return answer(perform(hogar, recordCharge, { chargeKey: key, outcome }, { kind: "system", name: "card gateway" }));
}
