import { refused } from "@/kernel/operation";
import { answer, jsonOf } from "@/server/guard";
import { sendNotice, standins } from "@/server/demo";

/** A test card is held to the reader; the stand-in then sends the application its signed notice. */
export async function POST(request: Request): Promise<Response> {
  const { cards, reader } = standins();
  try {
    const { key, number } = (await jsonOf(request)) as { key?: unknown; number?: unknown };
    const token = cards.tokenFor(String(number));
    const notice = token === null ? null : reader.hold(String(key), token);
    await sendNotice("readers", notice);
    return answer({ ok: true, value: null });
  } catch (error) {
    return answer(refused(error));
  }
}
