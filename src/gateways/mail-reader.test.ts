import { createTransport } from "nodemailer";
import { readMail } from "./mail-reader";
import { outsideProcess, TooManyWait } from "./outside-process";

const written = async (mail: object): Promise<Buffer> =>
  (
    await createTransport({ streamTransport: true, buffer: true }).sendMail({
      from: "Mira Okonjo <mira@example.com>",
      to: "office@marrowick.example",
      ...mail,
    })
  ).message as Buffer;

describe("an email that comes in", () => {
  it("is read for who writes, what they have written themselves, and what they answer", async () => {
    const raw = await written({
      subject: "Re: Your visit",
      html: "<style>p { color: red }</style><p>Yes, <b>thanks</b> &amp; see you</p>",
      inReplyTo: "<one@marrowick.example>",
      references: ["<zero@marrowick.example>", "<one@marrowick.example>"],
    });
    expect(await readMail(raw)).toMatchObject({
      from: "mira@example.com",
      fromName: "Mira Okonjo",
      words: "Yes, thanks & see you",
      answers: ["<one@marrowick.example>", "<zero@marrowick.example>", "<one@marrowick.example>"],
      isByMachine: false,
      report: null,
    });
  });

  it("with tens of thousands of brackets is read in the time of its length", async () => {
    const before = process.cpuUsage();
    for (const part of ["<", "<a ", "&lt", "<!--", "<style>"]) {
      const { words } = await readMail(await written({ html: part.repeat(60_000), references: "<".repeat(60_000) }));
      expect(words.length).toBeLessThanOrEqual(20_000);
    }
    // Looked through from each bracket anew, it takes minutes.
    expect(process.cpuUsage(before).user / 1_000).toBeLessThan(20_000);
  });

  it("that reports a mail as undelivered says which, and to whom", async () => {
    const boundary = "of-the-post";
    const part = (type: string, body: string) => `--${boundary}\r\nContent-Type: ${type}\r\n\r\n${body}\r\n`;
    const raw = [
      "From: postmaster@example.com",
      "To: office@marrowick.example",
      `Content-Type: multipart/report; report-type=delivery-status; boundary=${boundary}`,
      "",
      part("text/plain", "It could not be delivered.") +
        part(
          "message/delivery-status",
          "Reporting-MTA: dns; mx.example.com\r\n\r\nFinal-Recipient: rfc822; mira@example.com\r\nDiagnostic-Code: smtp; 550 No such user",
        ) +
        part("text/rfc822-headers", "Message-ID: <ours@marrowick.example>") +
        `--${boundary}--`,
    ].join("\r\n");
    expect((await readMail(Buffer.from(raw))).report).toEqual({
      reference: "<ours@marrowick.example>",
      recipient: "mira@example.com",
      problem: "550 No such user",
    });
  });
});

describe("what is looked into in a process of its own", () => {
  it("waits in a line that has an end, small ones first, and nobody takes all of it", async () => {
    const mails = outsideProcess<{ raw: Buffer }, { mail: { subject: string } }>("src/gateways/mail-child.ts", {
      longestMs: 300_000,
      most: 3,
      mostFromOne: 2,
    });
    const done: string[] = [];
    const ask = async (subject: string, from: string, size: number) => {
      await mails.ask({ question: { raw: await written({ subject }) }, size, from });
      done.push(subject);
    };
    const first = ask("first", "a", 9);
    await written({ subject: "some time" });
    const waiting = [ask("large", "a", 9), ask("middle", "a", 5), ask("small", "b", 1)];
    await written({ subject: "some time" });
    await expect(ask("one too many of a", "a", 1)).rejects.toBeInstanceOf(TooManyWait);
    await expect(ask("one too many", "c", 1)).rejects.toBeInstanceOf(TooManyWait);
    await Promise.all([first, ...waiting]);
    expect(done).toEqual(["first", "small", "middle", "large"]);
  });
});
