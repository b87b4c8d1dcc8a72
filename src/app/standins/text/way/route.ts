import type { TextWay } from "@/gateways/text-standin";
import { answer, jsonOf } from "@/server/guard";
import { refused } from "@/kernel/operation";
import { standins } from "@/server/demo";
import { takeIn } from "@/server/message-notices";

/** What the stand-in does with the next texts; what it has to say of earlier ones is told at once. */
export async function POST(request: Request): Promise<Response> {
  const { text } = standins();
  try {
    const { way } = (await jsonOf(request)) as { way: TextWay };
    text.setWay(way);
    for (const notice of text.notices()) await takeIn("text", { kind: "state", ...notice });
    return answer({ ok: true, value: null });
  } catch (error) {
    return answer(refused(error));
  }
}
