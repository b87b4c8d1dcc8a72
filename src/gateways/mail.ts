import { createHash } from "node:crypto";
import { mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { createTransport } from "nodemailer";
import type { MessageGateway, OutgoingMessage } from "./types";

/** Real mail through SMTP, where `SMTP_URL` is set. SMTP cannot tell whether a lost answer meant a lost mail, so it is not repeatable. */
export function smtpMail(url: string, from: () => string): MessageGateway {
  const transport = createTransport(url);
  return {
    repeatable: false,
    async send(message) {
      await transport.sendMail(mimeOf(message, from()));
      return "sent";
    },
  };
}

export interface MailStandin extends MessageGateway {
  /** Newest first. */
  files(): { name: string; at: number }[];
  read(name: string): Buffer | null;
}

/** Writes each mail as a real RFC 5322 file; without a folder they are kept in memory. Addresses that begin with `bounce` come back. */
export function mailStandin(folder: string | null, from: () => string): MailStandin {
  const box = folder ? boxInFolder(folder) : boxInMemory();
  const transport = createTransport({ streamTransport: true, buffer: true });
  const isMail = (name: string) => /^[0-9a-f]{32}\.eml$/.test(name);
  return {
    repeatable: true,
    async send(message) {
      if (message.to.startsWith("bounce")) return "bounced";
      const { message: mime } = await transport.sendMail(mimeOf(message, from()));
      box.write(`${nameOf(message.key)}.eml`, mime as Buffer);
      return "sent";
    },
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

const nameOf = (key: string): string => createHash("sha256").update(key).digest("hex").slice(0, 32);

const mimeOf = ({ key, to, subject, body }: OutgoingMessage, from: string) => ({
  from,
  to,
  subject,
  text: body,
  messageId: `<${nameOf(key)}@hogar.invalid>`,
});
