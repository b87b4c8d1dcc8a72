import type { Actor } from "@/core/people/permissions";
import { Refusal, type Result } from "@/core/problems";
import type { Hogar } from "@/kernel/hogar";
import { input, OneOf } from "@/kernel/inputs";
import { defineOperation, mustPerform, perform, refused } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { nanoid } from "nanoid";

/** Kept by the application itself when it has been looked at: not among what can be asked for. */
const keep = defineOperation({
  name: "keep-file",
  access: "anybody",
  input: input({
    table: OneOf(["recordings", "documents"]),
    name: Type.String({ maxLength: 120 }),
    mime: Type.String({ maxLength: 80 }),
    base64: Type.String(),
  }),
  run({ sql, now }, { table, name, mime, base64 }) {
    const file = { token: nanoid(24), mime, bytes: Buffer.from(base64, "base64"), made_at: now };
    if (table === "recordings") insertRow(sql, "recordings", file);
    else insertRow(sql, "documents", { ...file, name });
    return { token: file.token, name };
  },
});

const recordingKinds = ["audio/wav", "audio/mpeg", "audio/ogg", "audio/webm"];

/** Keeps what somebody has said to the machine. Answers its token; null where it is no recording that can be played. */
export const keepRecording = (hogar: Hogar, bytes: Buffer, mime: string, actor: Actor): string | null =>
  recordingKinds.includes(mime)
    ? mustPerform(hogar, keep, { table: "recordings", name: "", mime, base64: bytes.toString("base64") }, actor).token
    : null;

const largestDocument = 8_000_000;

/** Keeps a document that goes out with an email: a PDF, by its first bytes. */
export function keepDocument(
  hogar: Hogar,
  asked: string,
  bytes: Buffer,
  actor: Actor,
): Result<{ token: string; name: string }> {
  const isPdf = bytes.subarray(0, 5).toString("latin1") === "%PDF-";
  if (!isPdf) return refused(new Refusal("not-a-picture", { sentence: "Choose a PDF or a photo." }));
  if (bytes.length > largestDocument)
    return refused(new Refusal("too-large", { sentence: "This document is too large. Choose one of at most 8 MB." }));
  const name = asked.replace(/[^\p{L}\p{N} ._-]/gu, "").slice(0, 100) || "document.pdf";
  return perform(
    hogar,
    keep,
    { table: "documents", name, mime: "application/pdf", base64: bytes.toString("base64") },
    actor,
  );
}

/** A recording by its token. */
export const readRecording = ({ store }: Hogar, token: string): { mime: string; bytes: Buffer } | undefined =>
  store.sql<{ mime: string; bytes: Buffer }>("SELECT mime, bytes FROM recordings WHERE token = ?").get(token);
