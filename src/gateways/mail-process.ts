import { Refusal } from "@/core/problems";
import type { ReadMail } from "./mail-reader";
import { NotDone, outsideProcess, TooManyWait } from "./outside-process";

const mails = outsideProcess<{ raw: Buffer }, { mail: ReadMail } | { problem: string }>("src/gateways/mail-child.ts", {
  longestMs: 10_000,
  most: 100,
  mostFromOne: 100,
});

/** Reads an email in a process of its own; a refusal where it cannot be read, or not in time. */
export async function readMailOutside(raw: Buffer): Promise<ReadMail> {
  const answer = await mails.ask({ question: { raw }, size: raw.length, from: null }).catch((error: unknown) => {
    if (error instanceof TooManyWait) throw new Refusal("busy");
    throw error instanceof NotDone ? new Refusal("bad-request") : error;
  });
  if ("problem" in answer) throw new Refusal("bad-request");
  return answer.mail;
}
