import { createHmac } from "node:crypto";
import { mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { createTransport, type SendMailOptions } from "nodemailer";
import { isSigned } from "./standin-store";
import type { MessageGateway, OutgoingMessage } from "./types";

/** The address from which mail goes out where none is set for its sender. */
type From = () => string;

interface SmtpError {
  response?: string;
  responseCode?: number;
  /** What the server answered to, as nodemailer names it. */
  command?: string;
}

/**
 * Answers by which a server refuses the recipient for good (RFC 5321, 4.2.3: no such mailbox, not local, not allowed as a name):
 * no further try helps. What it refuses otherwise, our sign-in, our sender, a full mailbox, is not the address's fault.
 */
const isWrongAddress = (error: unknown): error is SmtpError => {
  const { command, responseCode = 0 } = (typeof error === "object" && error ? error : {}) as SmtpError;
  return command === "RCPT TO" && [550, 551, 553, 556].includes(responseCode);
};

/** Connecting, being greeted, and silence in between, in milliseconds: a server that hangs is tried again later. */
const patience = { connectionTimeout: 10_000, greetingTimeout: 10_000, socketTimeout: 20_000 };

/**
 * Real mail through SMTP, where `SMTP_URL` is set. SMTP cannot tell whether a lost answer meant a lost mail: it is sent
 * again under the same Message-ID, by which the receiving side knows it, since one mail twice is better than none. Notices and answers come by a webhook that signs with `secret`; Message-IDs are made with `idKey`.
 */
export function smtpMail(url: string, from: From, idKey: string, secret = ""): MessageGateway {
  const transport = createTransport({ url, ...patience });
  return {
    repeatable: true,
    async send(message) {
      const mime = mimeOf(message, from(), idKey);
      try {
        await transport.sendMail(mime);
      } catch (error) {
        if (isWrongAddress(error)) return { state: "bounced", problem: error.response ?? "The address was refused" };
        throw error;
      }
      return { state: "sent", reference: mime.messageId };
    },
    isGenuine: (body, signature) => secret !== "" && isSigned(body, signature, secret),
  };
}

export interface MailStandin extends MessageGateway {
  /** Newest first. */
  files(): { name: string; at: number }[];
  read(name: string): Buffer | null;
}

/** Writes each mail as a real RFC 5322 file; without a folder they are kept in memory. Addresses that begin with `bounce` come back. `key` signs notices and makes Message-IDs. */
export function mailStandin(folder: string | null, from: From, key: string): MailStandin {
  const box = folder ? boxInFolder(folder) : boxInMemory();
  const transport = createTransport({ streamTransport: true, buffer: true });
  const isMail = (name: string) => /^[0-9a-f]{32}\.eml$/.test(name);
  return {
    repeatable: true,
    async send(message) {
      if (message.to.startsWith("bounce")) return { state: "bounced", problem: "There is no such mailbox" };
      const mime = mimeOf(message, from(), key);
      const { message: bytes } = await transport.sendMail(mime);
      box.write(`${nameOf(key, message.key)}.eml`, bytes as Buffer);
      return { state: "sent", reference: mime.messageId };
    },
    isGenuine: (body, signature) => isSigned(body, signature, key),
    files: () =>
      box
        .files()
        .filter(({ name }) => isMail(name))
        .sort((a, b) => b.at - a.at),
    read: (name) => (isMail(name) ? box.read(name) : null),
  };
}

interface Box {
  write: (name: string, mime: Buffer) => void;
  files: () => { name: string; at: number }[];
  read: (name: string) => Buffer | null;
}

function boxInFolder(folder: string): Box {
  mkdirSync(folder, { recursive: true });
  return {
    write: (name, mime) => writeFileSync(path.join(folder, name), mime),
    files: () => readdirSync(folder).map((name) => ({ name, at: statSync(path.join(folder, name)).mtimeMs })),
    read: (name) => readFileSync(path.join(folder, name)),
  };
}

function boxInMemory(): Box {
  const kept = new Map<string, { mime: Buffer; at: number }>();
  return {
    write: (name, mime) => void kept.set(name, { mime, at: Date.now() }),
    files: () => [...kept].map(([name, { at }]) => ({ name, at })),
    read: (name) => kept.get(name)?.mime ?? null,
  };
}

/** The same for the same message, and for nobody to work out who has not got it. */
const nameOf = (idKey: string, key: string): string =>
  createHmac("sha256", idKey).update(key).digest("hex").slice(0, 32);

/** What RFC 3834 calls mail that no person has written by hand. */
const autoSubmitted = { "by itself": "auto-generated", "as an answer": "auto-replied", "by hand": null } as const;

function mimeOf(message: OutgoingMessage, from: string, idKey: string): SendMailOptions & { messageId: string } {
  const sender = message.from ?? { name: "", address: from };
  const auto = autoSubmitted[message.written ?? "by itself"];
  return {
    from: sender.name ? sender : sender.address,
    to: message.to,
    subject: message.subject,
    text: message.body,
    ...(message.html && { html: message.html }),
    messageId: `<${nameOf(idKey, message.key)}@${sender.address.split("@")[1] ?? "hogar.invalid"}>`,
    ...(message.thread && { inReplyTo: message.thread.inReplyTo, references: message.thread.references }),
    headers: {
      ...(auto && { "Auto-Submitted": auto }),
      ...(message.unsubscribe && {
        "List-Unsubscribe": `<${message.unsubscribe}>`,
        "List-Unsubscribe-Post": "List-Unsubscribe=One-Click",
      }),
    },
    attachments: (message.attachments ?? []).map(({ name, mime, bytes }) => ({
      filename: name,
      contentType: mime,
      content: bytes,
    })),
  };
}
