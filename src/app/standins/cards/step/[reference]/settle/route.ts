import { refused } from "@/kernel/operation";
import { answer, jsonOf } from "@/server/guard";
import { sendNotice, standins } from "@/server/demo";

/** The bank's second step is taken or refused; the stand-in then sends the application its signed notice. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ reference: string }> },
): Promise<Response> {
  const { cards } = standins();
  try {
    const { agreed } = (await jsonOf(request)) as { agreed?: unknown };
    const notice = cards.settleStep((await params).reference, agreed === true);
    await sendNotice("cards", notice);
    return answer({ ok: true, value: null });
  } catch (error) {
    return answer(refused(error));
  }
}
