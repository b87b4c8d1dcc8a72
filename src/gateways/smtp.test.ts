import { simpleParser } from "mailparser";
import { SMTPServer } from "smtp-server";
import type { AddressInfo } from "node:net";
import { mailHtml } from "./mail-html";
import { smtpMail } from "./mail";
import type { OutgoingMessage } from "./types";

interface Post {
  url: string;
  mails: Buffer[];
  close: () => Promise<void>;
}

/** A real mail server on this machine: takes, refuses for good or for now, by the address. */
const startPost = (): Promise<Post> =>
  new Promise((resolve) => {
    const mails: Buffer[] = [];
    const server = new SMTPServer({
      authOptional: true,
      disabledCommands: ["STARTTLS"],
      onMailFrom({ address }, _session, done) {
        if (!address.startsWith("blocked")) return done();
        done(Object.assign(new Error("This sender is blocked"), { responseCode: 550 }));
      },
      onRcptTo({ address }, _session, done) {
        const refusal = (code: number, words: string) => done(Object.assign(new Error(words), { responseCode: code }));
        if (address.startsWith("nobody")) return refusal(550, "No such mailbox");
        if (address.startsWith("full")) return refusal(552, "Over quota");
        if (address.startsWith("busy")) return refusal(451, "Try again later");
        done();
      },
      onData(stream, _session, done) {
        const parts: Buffer[] = [];
        stream.on("data", (part: Buffer) => parts.push(part));
        stream.on("end", () => {
          mails.push(Buffer.concat(parts));
          done();
        });
      },
    });
    server.listen(0, "127.0.0.1", () =>
      resolve({
        url: `smtp://127.0.0.1:${(server.server.address() as AddressInfo).port}`,
        mails,
        close: () => new Promise((closed) => server.close(() => closed())),
      }),
    );
  });

const letter: OutgoingMessage = {
  key: "booked job 1 mail",
  to: "mira@example.com",
  from: { name: "Marrowick Hearth & Flue", address: "office@marrowick.example" },
  subject: "Booked: 9–11, señora Okonjo",
  body: "Hello Mira,\n\nuntil then.\nhttps://hogar.example/my/1.abc",
  html: mailHtml({
    subject: "Booked",
    body: "Hello Mira <b>,\n\nEverything is here: {{my_link}}\n\nuntil then.",
    links: { "{{my_link}}": "https://hogar.example/my/1.abc" },
    language: "en",
    business: { name: "Marrowick Hearth & Flue", phone: "+1 555 0100", address: "1 Quay Street" },
    mark: "https://hogar.example/api/images/mark",
    accent: "#24443F",
    opened: null,
  }),
};

describe("mail by SMTP", () => {
  let post: Post;
  beforeAll(async () => void (post = await startPost()));
  afterAll(() => post.close());
  afterEach(() => void post.mails.splice(0));
  const send = (change: Partial<OutgoingMessage> = {}) =>
    smtpMail(post.url, () => "office@marrowick.example", "a key").send({ ...letter, ...change });

  it("is read back by another library as it was meant: both kinds of text, and the headers of mail that no person wrote", async () => {
    const sent = await send({ unsubscribe: "https://hogar.example/api/stop/1.x" });
    const mail = await simpleParser(post.mails[0]!);
    expect(mail).toMatchObject({
      subject: "Booked: 9–11, señora Okonjo",
      text: expect.stringContaining("https://hogar.example/my/1.abc"),
      from: { value: [{ name: "Marrowick Hearth & Flue", address: "office@marrowick.example" }] },
      messageId: sent.state === "sent" ? sent.reference : "",
    });
    expect(mail.headers.get("auto-submitted")).toBe("auto-generated");
    expect(mail.headers.get("list-unsubscribe-post") ?? JSON.stringify(mail.headers.get("list"))).toMatch(/One-Click/);
    expect(mail.html).toContain('href="https://hogar.example/my/1.abc"');
    // What somebody typed stays text.
    expect(mail.html).toContain("Hello Mira &lt;b&gt;");
  });

  it("of a person answers what was written, and brings its document along", async () => {
    await send({
      written: "by hand",
      thread: { inReplyTo: "<a@mail.example>", references: ["<a@mail.example>"] },
      attachments: [{ name: "offer.pdf", mime: "application/pdf", bytes: Buffer.from("%PDF-1.7") }],
    });
    const mail = await simpleParser(post.mails[0]!);
    expect([mail.inReplyTo, mail.references, mail.headers.has("auto-submitted")]).toEqual([
      "<a@mail.example>",
      "<a@mail.example>",
      false,
    ]);
    expect(mail.attachments).toMatchObject([{ filename: "offer.pdf", contentType: "application/pdf" }]);
  });

  it("bounces where the server refuses for good, and is tried again where it only waits", async () => {
    expect(await send({ to: "nobody@example.com" })).toMatchObject({
      state: "bounced",
      problem: expect.stringContaining("No such mailbox"),
    });
    await expect(send({ to: "busy@example.com" })).rejects.toThrow(/Try again later/);
    expect(post.mails).toEqual([]);
  });

  it("is not the customer’s wrong address where the server refuses us, or their mailbox is full", async () => {
    await expect(send({ from: { name: "", address: "blocked@marrowick.example" } })).rejects.toThrow(/blocked/);
    await expect(send({ to: "full@example.com" })).rejects.toThrow(/Over quota/);
  });

  it("has the same Message-ID when it is sent again, so that the other side knows it", async () => {
    const [first, again] = [await send(), await send()];
    expect(again).toEqual(first);
    expect(post.mails).toHaveLength(2);
  });
});
