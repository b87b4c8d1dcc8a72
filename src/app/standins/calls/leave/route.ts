import { toneOf } from "@/gateways/tone";
import { answer, jsonOf } from "@/server/guard";
import { refused } from "@/kernel/operation";
import { standins } from "@/server/demo";
import { takeIn } from "@/server/message-notices";
import { nanoid } from "nanoid";

/** Somebody calls, nobody takes it, and they leave a message. */
export async function POST(request: Request): Promise<Response> {
  standins();
  try {
    const { from, words } = (await jsonOf(request)) as { from: string; words: string };
    const seconds = 3;
    const recording = { base64: toneOf(seconds).toString("base64"), mime: "audio/wav" };
    return answer(await takeIn("voice", { kind: "missed", id: nanoid(), from, seconds, words, recording }));
  } catch (error) {
    return answer(refused(error));
  }
}
