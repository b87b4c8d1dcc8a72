import { answer, jsonOf } from "@/server/guard";
import { refused } from "@/kernel/operation";
import { standins } from "@/server/demo";
import { takeIn, takeMail } from "@/server/message-notices";
import { createTransport } from "nodemailer";
import PostalMime from "postal-mime";

/** Whoever got a mail answers it, as a mail program would; or its mailbox sends it back, or it is opened. */
export async function POST(request: Request): Promise<Response> {
  const { mail: box } = standins();
  try {
    const { file, how, words } = (await jsonOf(request)) as { file: string; how: "answer" | "bounce"; words: string };
    const sent = await PostalMime.parse(box.read(file) ?? Buffer.alloc(0));
    if (how === "bounce")
      return answer(
        await takeIn("mail", {
          kind: "state",
          reference: sent.messageId ?? "",
          state: "bounced",
          problem: "The mailbox is full",
        }),
      );
    const transport = createTransport({ streamTransport: true, buffer: true });
    const { message } = await transport.sendMail({
      from: sent.to?.[0]?.address ?? "",
      to: sent.from?.address ?? "",
      subject: `Re: ${sent.subject ?? ""}`,
      text: `${words}\n\nOn ${sent.date ?? "that day"}, ${sent.from?.address} wrote:\n${(sent.text ?? "").replace(/^/gm, "> ")}`,
      inReplyTo: sent.messageId ?? "",
      references: [sent.messageId ?? ""],
    });
    return answer(await takeMail(message as Buffer));
  } catch (error) {
    return answer(refused(error));
  }
}
