import { isMailAddress } from "@/core/people/mail-address";
import { keyMeans } from "@/core/messages/answers";
import { Refusal } from "@/core/problems";
import { input } from "@/kernel/inputs";
import { dayMs, hourMs } from "@/core/horizons";
import { sealed, unsealed } from "@/kernel/keys";
import { takeTry } from "@/kernel/tries";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { claimPhotos, isKeptPhoto } from "@/modules/pictures/photos";
import { Type } from "@sinclair/typebox";
import { randomInt } from "node:crypto";
import { receive } from "../receiving";
import { tellAsker } from "../messaging";
import { noteTheirs, threadOfStranger } from "../threads";
import { insertRow } from "@/store/insert";

const sender = Type.String({ minLength: 3, maxLength: 200 });
const key = Type.String({ minLength: 1, maxLength: 300 });
const Tokens = Type.Optional(Type.Array(Type.String({ maxLength: 60 }), { maxItems: 10 }));
const words = (most: number) => Type.String({ maxLength: most });

/** A text that somebody sent, with what they have attached. */
export const receiveText = defineOperation({
  name: "receive-text",
  access: "system",
  input: input({ key, sender, body: words(2_000), photos: Tokens }),
  run(context, { photos = [], ...text }) {
    claimPhotos(context, photos);
    receive(context, { channel: "text", photos, ...text });
  },
});

/** An email that somebody sent, as it was read: what they have written themselves, and which of ours it answers. */
export const receiveMail = defineOperation({
  name: "receive-mail",
  access: "system",
  input: input({
    key,
    sender,
    senderName: words(200),
    subject: words(300),
    body: words(20_000),
    mailId: Type.Union([words(300), Type.Null()]),
    answers: Type.Array(words(300), { maxItems: 50 }),
    photos: Tokens,
  }),
  run(context, { photos = [], ...mail }) {
    claimPhotos(context, photos);
    receive(context, { channel: "mail", photos, ...mail });
  },
});

/** A call of ours that was taken, with the key that was pressed; or one of theirs that nobody took, with its recording. */
export const receiveCall = defineOperation({
  name: "receive-call",
  access: "system",
  input: input({
    key,
    sender,
    pressed: Type.Union([Type.String({ pattern: "^[0-9*#]$" }), Type.Null()]),
    recording: Type.Union([words(200), Type.Null()]),
    seconds: Type.Union([Type.Integer({ minimum: 0, maximum: 36_000 }), Type.Null()]),
    /** What was said, where the service has written it down. */
    words: words(2_000),
  }),
  run(context, { key: callKey, sender: from, pressed, recording, seconds, words: said }) {
    const body = pressed !== null ? `Pressed ${pressed}` : said;
    receive(context, {
      channel: "voice",
      key: callKey,
      sender: from,
      body,
      recording,
      seconds,
      ...(pressed !== null && { means: keyMeans(pressed) }),
    });
  },
});

/**
 * A question at the front door, without an account: it begins a conversation, and is answered by email or text. When many have
 * asked on a day, whoever asks shows by a code that their email is theirs; nobody is sent away for what others do.
 */
export const askQuestion = defineOperation({
  name: "ask-question",
  access: "anybody",
  about: {},
  input: input({
    name: Type.String({ minLength: 1, maxLength: 80, pattern: "\\S", patternSentence: "Say who asks." }),
    mail: Type.String({ maxLength: 120 }),
    phone: Type.String({ maxLength: 40 }),
    words: Type.String({ minLength: 3, maxLength: 1_500, pattern: "\\S", patternSentence: "Write your question." }),
    photos: Tokens,
    /** The code that was sent, with what was answered when it was. */
    code: Type.Optional(Type.String({ maxLength: 12 })),
    codeFor: Type.Optional(Type.String({ maxLength: 400 })),
  }),
  run(
    context,
    { name, mail: typedMail, phone: typedPhone, words: said, photos = [], code, codeFor },
  ): { codeFor?: string; wrong?: boolean } {
    const { sql, now, business, origin, hogar } = context;
    const [mail, phone] = [typedMail.trim(), typedPhone.trim()];
    const fields: Record<string, string> = {};
    if (!mail && !phone) fields["/mail"] = "Say how we can answer: an email address or a phone number.";
    if (mail && !isMailAddress(mail)) fields["/mail"] = "This is not an email address.";
    if (phone && phone.replace(/\D/g, "").length < 6) fields["/phone"] = "Write a phone number, such as +1 555 0142.";
    if (!photos.every((token) => isKeptPhoto(context, token)))
      fields["/photos"] = "A photo is not with us any more: add it again.";
    if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
    const often = new Refusal("asked-often", {
      sentence: `You have asked several questions today. Call us on ${business.phone}, and we talk about all of them.`,
    });
    if (askedToday(context, mail || phone) >= mostOfOne) throw often;
    if (askedToday(context, null) >= mostQuestions) {
      const proof = codeFor && code ? takeCode(context, { mail, code, codeFor }) : "none";
      if (proof === "none") return { codeFor: sendCode(context, mail) };
      if (proof === "wrong") return { codeFor: codeFor!, wrong: true };
    }
    if (origin.address !== null && !takeTry(hogar, `questions from ${origin.address}`, fromOneAddress)) throw often;
    claimPhotos(context, photos);
    const threadId = threadOfStranger(context, { name: name.trim(), mail, phone });
    const id = insertRow(sql, "replies", {
      thread_id: threadId,
      channel: "front door",
      sender: mail || phone,
      body: said.trim(),
      received_at: now,
      photos: JSON.stringify(photos),
    });
    tellAsker(
      context,
      { name, mail, phone },
      { occasion: "question", about: `reply ${id}`, threadId, fields: { words: "" }, answer: true, unproved: true },
    );
    noteTheirs(context, threadId, said, true);
    return {};
  },
});

/** Questions of a day: of all, before a code is asked for; of one email or phone, and from one network address. */
const mostQuestions = 200;
const mostOfOne = 5;
const fromOneAddress = { most: 10, duringMs: dayMs };

const askedToday = ({ sql, now }: OperationContext, from: string | null): number =>
  sql<{ n: number }>(
    "SELECT count(*) AS n FROM replies WHERE channel = 'front door' AND received_at > @since AND sender = coalesce(@from, sender)",
  ).get({ since: now - dayMs, from })!.n;

/** A code is good for so long, and tried so often. */
const codeMs = hourMs;
const codeTries = { most: 5, duringMs: codeMs };
const codesToOne = { most: 3, duringMs: dayMs };

/** Sends a code to an email. Answers what to bring back with it: sealed, so that nothing of it is kept here. */
function sendCode(context: OperationContext, mail: string): string {
  const { hogar, now, business } = context;
  if (!mail)
    throw new Refusal("invalid-input", {
      fields: { "/mail": "Many people are writing today: give an email address, and we send you a code." },
    });
  if (!takeTry(hogar, `codes for questions to ${mail.toLowerCase()}`, codesToOne))
    throw new Refusal("too-many-messages");
  const code = String(randomInt(1_000_000)).padStart(6, "0");
  context.later({
    lane: "mail",
    kind: "tell",
    key: `code for a question to ${mail} ${now}`,
    payload: {
      to: mail,
      subject: `${code} is your code`,
      body: `Your code is ${code}. Enter it on the page on which you have asked us something.\n\nIf that was not you, forget this email.\n\n${business.name}\n${business.phone}\n`,
    },
  });
  return sealed(hogar.keys, "questions", JSON.stringify([mail, code, now + codeMs]));
}

/** Whether a code is the one that was sent to this email; none where it is over. */
function takeCode(
  { hogar, now }: OperationContext,
  { mail, code, codeFor }: { mail: string; code: string; codeFor: string },
): "right" | "wrong" | "none" {
  const [to, right, until] = JSON.parse(unsealed(hogar.keys, "questions", codeFor) ?? "[]") as [
    string?,
    string?,
    number?,
  ];
  if (to !== mail || until === undefined || until < now) return "none";
  if (!takeTry(hogar, `code for a question ${codeFor}`, codeTries)) return "none";
  return code.replace(/\D/g, "") === right ? "right" : "wrong";
}
