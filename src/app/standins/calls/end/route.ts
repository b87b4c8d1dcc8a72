import { answer, jsonOf } from "@/server/guard";
import { refused } from "@/kernel/operation";
import { standins } from "@/server/demo";
import { takeIn } from "@/server/message-notices";

/** A call ends: somebody takes it and presses a key, or nobody does. */
export async function POST(request: Request): Promise<Response> {
  const { voice } = standins();
  try {
    const { key, pressed } = (await jsonOf(request)) as { key: string; pressed: string | null };
    const call = voice.calls().find((one) => one.key === key);
    if (!call || !voice.end(key, pressed === null ? null : { pressed })) return answer({ ok: true, value: null });
    const state = pressed === null ? "failed" : "delivered";
    await takeIn("voice", {
      kind: "state",
      reference: key,
      state,
      problem: pressed === null ? "Nobody took the call" : "",
    });
    if (pressed) return answer(await takeIn("voice", { kind: "key", id: key, from: call.number, pressed }));
    return answer({ ok: true, value: null });
  } catch (error) {
    return answer(refused(error));
  }
}
