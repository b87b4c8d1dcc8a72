import { ownWords } from "@/core/messages/answers";
import { convert } from "html-to-text";
import { createHash } from "node:crypto";
import PostalMime, { type Email } from "postal-mime";

/** What is read of an email that came in; everything is of a length that can be kept. */
export interface ReadMail {
  /** Its Message-ID, and those of the mails it answers, with their angle brackets. */
  id: string | null;
  answers: string[];
  /** What tells it from others where it has no id. */
  digest: string;
  from: string | null;
  fromName: string;
  subject: string;
  /** What its writer has written themselves. */
  words: string;
  /** No person has written it (RFC 3834). */
  isByMachine: boolean;
  /** Pictures in it, as they are. */
  pictures: Uint8Array[];
  /** What a report of the post says (RFC 3464): about which message of ours, to whom, and why. */
  report: { reference: string; recipient: string; problem: string } | null;
}

const most = { id: 300, name: 200, subject: 300, words: 20_000, text: 200_000, answers: 50, pictures: 10 };

/** Reads an email (RFC 5322). It may be anything: whoever asks gives it a process of its own, and little time. */
export async function readMail(raw: Uint8Array): Promise<ReadMail> {
  const mail = await PostalMime.parse(raw, { maxNestingDepth: 20, maxHeadersSize: 200_000 });
  const answers = idsIn(`${mail.inReplyTo ?? ""} ${mail.references ?? ""}`).slice(-most.answers);
  return {
    id: idsIn(mail.messageId ?? "")[0] ?? null,
    answers,
    digest: createHash("sha256").update(raw).digest("hex"),
    from: mail.from?.address?.slice(0, most.name) ?? null,
    fromName: (mail.from?.name ?? "").slice(0, most.name),
    subject: (mail.subject ?? "").slice(0, most.subject),
    words: ownWords((mail.text ?? plainOf(mail.html ?? "")).slice(0, most.text)).slice(0, most.words),
    isByMachine: headerOf(mail, "auto-submitted").toLowerCase().startsWith("auto-"),
    pictures: mail.attachments
      .filter(({ mimeType }) => mimeType === "image/png" || mimeType === "image/jpeg")
      .slice(0, most.pictures)
      .map(({ content }) => bytesOf(content)),
    report: reportIn(mail, answers),
  };
}

const plainOf = (html: string): string =>
  convert(html, {
    wordwrap: false,
    limits: { maxInputLength: most.text, ellipsis: "" },
    selectors: [{ selector: "a", options: { ignoreHref: true } }],
  });

/** Message-IDs in a header, each of a length that can be kept. */
function idsIn(header: string): string[] {
  return header
    .slice(0, most.text)
    .split(/[<>\s]+/)
    .filter((id) => id.length <= most.id - 2 && id.includes("@"))
    .map((id) => `<${id}>`);
}

const headerOf = (mail: Email, name: string): string => mail.headers.find(({ key }) => key === name)?.value ?? "";

const bytesOf = (content: ArrayBuffer | Uint8Array | string): Uint8Array =>
  typeof content === "string" ? Buffer.from(content, "base64") : new Uint8Array(content);

function reportIn(mail: Email, answers: readonly string[]): ReadMail["report"] {
  const status = mail.attachments.find(({ mimeType }) => mimeType === "message/delivery-status");
  if (!status) return null;
  const report = textOf(status.content);
  const returned = mail.attachments
    .filter(({ mimeType }) => mimeType === "message/rfc822" || mimeType === "text/rfc822-headers")
    .map(({ content }) => textOf(content))
    .join("\n");
  return {
    reference: idsIn(fieldOf(returned, "message-id"))[0] ?? answers.at(-1) ?? "unknown",
    recipient: afterKind(fieldOf(report, "final-recipient") || fieldOf(report, "original-recipient")).slice(
      0,
      most.name,
    ),
    problem: (afterKind(fieldOf(report, "diagnostic-code")) || "It could not be delivered").slice(0, most.subject),
  };
}

const textOf = (content: ArrayBuffer | Uint8Array | string): string =>
  Buffer.from(bytesOf(content)).subarray(0, most.text).toString("utf8");

/** A field of a header by its name in small letters, of the first line that has it. */
function fieldOf(header: string, name: string): string {
  const line = header.split("\n").find((one) => one.toLowerCase().startsWith(`${name}:`));
  return line?.slice(name.length + 1).trim() ?? "";
}

/** Without the kind that stands before a value: `rfc822; mira@example.com`. */
const afterKind = (value: string): string => value.slice(value.indexOf(";") + 1).trim();
