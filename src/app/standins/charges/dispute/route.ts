import { refused } from "@/kernel/operation";
import { answer, jsonOf } from "@/server/guard";
import { sendNotice, standins } from "@/server/demo";

/** A customer's bank asks a charge back, or that is decided; the stand-in then sends the application its signed notice. */
export async function POST(request: Request): Promise<Response> {
  const { cards } = standins();
  try {
    const { charge, state } = (await jsonOf(request)) as { charge?: unknown; state?: unknown };
    const notice = cards.dispute(String(charge), state === "won" || state === "lost" ? state : "open");
    await sendNotice("disputes", notice);
    return answer({ ok: true, value: null });
  } catch (error) {
    return answer(refused(error));
  }
}
