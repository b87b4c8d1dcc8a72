import { answer, jsonOf } from "@/server/guard";
import { refused } from "@/kernel/operation";
import { standins } from "@/server/demo";
import { takeIn } from "@/server/message-notices";
import { nanoid } from "nanoid";

/** The plain phone answers, with a photo if it likes. */
export async function POST(request: Request): Promise<Response> {
  const { text } = standins();
  try {
    const { sender, body, photo } = (await jsonOf(request, 12_000_000)) as {
      sender: string;
      body: string;
      photo?: string;
    };
    const photos = photo ? [{ base64: photo }] : [];
    const result = await takeIn("text", { kind: "text", id: nanoid(), from: sender, body, photos });
    if (result.ok) text.answer(sender, body || "(a photo)", Date.now());
    return answer(result);
  } catch (error) {
    return answer(refused(error));
  }
}
