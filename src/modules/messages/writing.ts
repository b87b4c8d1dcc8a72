import { dayMs } from "@/core/horizons";
import { type CampaignTexts, wordsOfCampaign } from "@/core/messages/campaign-texts";
import type { MergeFields } from "@/core/messages/fields";
import type { Language } from "@/core/messages/languages";
import { kindOf, type Occasion } from "@/core/messages/occasions";
import { type Channel, channels } from "@/core/messages/purposes";
import { plainSigns } from "@/core/messages/segments";
import { fillTemplate, type Template } from "@/core/messages/templates";
import { isLandline } from "@/core/people/landlines";
import { isOfSameCountry } from "@/core/people/phones";
import { makeShortLink, type OpenedBy, type ShortOpens } from "@/kernel/links";
import type { OperationContext } from "@/kernel/operation";
import { type MostTries, takeTry } from "@/kernel/tries";
import { campaignTextsColumn, channelsColumn, fieldsColumn, openedByColumn } from "@/store/columns";
import { insertOnce } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { settingsOf, templateOf } from "./settings";

/** Who is written to, and how they are reached: a customer, or somebody who is none. */
export interface Reader {
  customerId: number | null;
  threadId?: number | null;
  mail: string;
  phone: string;
  reachedBy?: "any" | "email" | "text" | "phone";
  /** Whether nobody has shown yet that the addresses are theirs: they get mail, little of it, and neither texts nor calls. */
  unproved?: boolean;
  /** Whether its reader has typed the number: texts and calls go to it within the country of the business alone. */
  typedPhone?: boolean;
  language: Language;
}

/** What a message is about. */
export interface AboutWhat {
  jobId?: number | null;
  visitId?: number | null;
  /** The others that it is about. */
  alsoVisits?: readonly number[];
  /** When the window opens that it speaks of (epoch minutes). */
  windowFrom?: number | null;
  repeatId?: number | null;
  invoiceId?: number | null;
  inviteId?: number | null;
  /** What its link opens, where that is not the customer's own page. */
  opens?: OpenedBy;
}

export interface Written {
  occasion: Occasion;
  /** What tells this occasion from others of its kind: at most one message a channel is sent for both together. */
  about: string;
  fields: MergeFields;
  /** Answers something its reader has just done: goes out at any hour. */
  answer?: boolean;
  /** Its own words, in place of those of the occasion. */
  words?: WordsOfItsOwn;
  /** Leaves so many milliseconds later. */
  afterMs?: number;
}

/** The words of one message by channel and language; null where nothing is said that way, undefined where the occasion's words count. */
export type WordsOfItsOwn = (channel: Channel, language: Language) => Template | null | undefined;

/** Writes somebody the message of an occasion, once: by the first channel that reaches them, or each, as the owner has it. */
export function write(context: OperationContext, to: Reader, of: AboutWhat, written: Written): void {
  const settings = settingsOf(context, written.occasion);
  const { always, purpose } = kindOf(written.occasion);
  if (!settings.on && !always) return;
  const ways = inTheirOrder(to, reaching(context, to, settings.channels, written), settings.each);
  const answer = written.answer ?? purpose === "answer";
  const rounds = settings.each ? ways.map((way) => [way]) : ways.length ? [ways] : [];
  for (const [channel, ...left] of rounds) writeBy(context, to, of, { ...written, answer }, channel!, left);
}

/** Channels that are open, for which there are words, and on which there is an address. */
function reaching(context: OperationContext, to: Reader, wanted: readonly Channel[], written: Written): Channel[] {
  const { hogar } = context;
  return wanted.filter((channel) => {
    if (!hogar.gateways[channel] || !addressOn(to, channel)) return false;
    if (channel !== "mail" && !mayRing(context, to)) return false;
    // A landline takes no text where it can be called.
    if (channel === "text" && isLandline(to.phone) && wanted.includes("voice") && hogar.gateways.voice) return false;
    return wordsOf(context, written, channel, to.language) !== null;
  });
}

/** Texts and calls cost, and disturb: they go to no number that a stranger has only typed, nor abroad to one that its reader has. */
const mayRing = ({ business }: OperationContext, { unproved, typedPhone, phone }: Reader): boolean =>
  !unproved && (!typedPhone || isOfSameCountry(phone, business.phone));

const wordsOf = (
  context: OperationContext,
  { occasion, words }: Pick<Written, "occasion" | "words">,
  channel: Channel,
  language: Language,
): Template | null => {
  const own = words?.(channel, language);
  return own === undefined ? templateOf(context, occasion, channel, language) : own;
};

const addressOn = (to: Pick<Reader, "mail" | "phone">, channel: Channel): string =>
  channel === "mail" ? to.mail : to.phone;

/** Whoever wants to be reached in one way is reached in that way first; where each is written to, in that way alone. */
function inTheirOrder({ reachedBy = "any" }: Reader, ways: readonly Channel[], each: boolean): Channel[] {
  const wished = ({ any: null, email: "mail", text: "text", phone: "voice" } as const)[reachedBy];
  if (!wished || !ways.includes(wished)) return [...ways];
  return each ? [wished] : [wished, ...ways.filter((way) => way !== wished)];
}

/** What strangers cause in a day: messages to one address, those that one network address causes, and all of them. */
const toOneStranger = 6;
const byOneStranger: MostTries = { most: 25, duringMs: dayMs };
const byAllStrangers: MostTries = { most: 500, duringMs: dayMs };

/** Whether another message may go to an address of which nobody has shown that it is theirs, whatever it is about. */
const mayWriteUnproved = (context: OperationContext, recipient: string): boolean =>
  writtenToday(context, recipient) < toOneStranger &&
  (context.origin.address === null ||
    (takeTry(context.hogar, `messages caused from ${context.origin.address}`, byOneStranger) &&
      takeTry(context.hogar, "messages caused by strangers", byAllStrangers)));

function writeBy(
  context: OperationContext,
  to: Reader,
  of: AboutWhat,
  { occasion, about, fields, answer, words, afterMs = 0 }: Written,
  channel: Channel,
  left: Channel[],
): void {
  const recipient = addressOn(to, channel);
  // What one of us does is told, whoever it is; what strangers cause has an end.
  if (to.unproved && context.actor.kind !== "person" && !mayWriteUnproved(context, recipient)) return;
  const { subject, body } = composed(
    wordsOf(context, { occasion, words }, channel, to.language)!,
    fields,
    to.language,
    channel,
  );
  const message: NewMessage = {
    occasion: `${occasion} ${about} ${channel}`,
    kind: occasion,
    channel,
    customer_id: to.customerId,
    thread_id: to.threadId ?? null,
    job_id: of.jobId ?? null,
    visit_id: of.visitId ?? null,
    also_visits: JSON.stringify(of.alsoVisits ?? []),
    window_from: of.windowFrom ?? null,
    repeat_id: of.repeatId ?? null,
    invoice_id: of.invoiceId ?? null,
    invite_id: of.inviteId ?? null,
    opens: of.opens ? JSON.stringify(of.opens) : null,
    recipient,
    language: to.language,
    subject,
    body,
    channels_left: JSON.stringify(left),
    fields: left.length ? JSON.stringify({ fields, mail: to.mail, phone: to.phone }) : null,
    at_any_hour: answer ? 1 : 0,
  };
  put(context, message, afterMs);
}

/** The words of a message; those of a text in plain signs, since a dash of typographers makes it twice as dear. */
function composed(template: Template, fields: MergeFields, language: Language, channel: Channel): Template {
  const filled = fillTemplate(template, fields, language);
  return channel === "text" ? { ...filled, body: plainSigns(filled.body) } : filled;
}

type MessageRow = Rows["messages"];
type NewMessage = Omit<
  MessageRow,
  | "id"
  | "state"
  | "written_at"
  | "sent_at"
  | "delivered_at"
  | "opened_at"
  | "problem"
  | "reference"
  | "parts"
  | "photos"
  | "written_by"
  | "invite_id"
  | "settled_at"
  | "also_visits"
> &
  Partial<Pick<MessageRow, "photos" | "written_by" | "invite_id" | "also_visits">>;

/** Keeps a message and asks for it to be sent; the same one again is none. Answers its id, or null. */
export function put(context: OperationContext, message: NewMessage, afterMs = 0): number | null {
  const id = insertOnce(context.sql, "messages", { ...message, state: "waiting", written_at: context.now });
  if (id === null) return null;
  if (message.channel === "text") {
    const opens = opensOf(message);
    if (opens) makeShortLink(context, opens);
  }
  sendLater(context, { ...message, id }, afterMs);
  return id;
}

/** What the link in a message opens; null: the front door. */
export const opensOf = ({ opens, job_id }: Pick<MessageRow, "opens" | "job_id">): ShortOpens | null =>
  opens !== null ? openedByColumn.read(opens) : job_id !== null ? { kind: "my", id: job_id } : null;

/** Asks for a message to be sent, or looked at again after so many milliseconds. */
export const sendLater = (
  context: OperationContext,
  { id, occasion, channel }: Pick<MessageRow, "id" | "occasion" | "channel">,
  afterMs: number,
): void =>
  context.later({
    kind: "message",
    lane: channel,
    key: afterMs ? `message ${occasion} from ${context.now + afterMs}` : `message ${occasion}`,
    payload: { messageId: id },
    afterMs,
  });

/** The same message by the next of its channels, where there is one left. Answers whether there was. */
export function writeByNext(context: OperationContext, messageId: number): boolean {
  const row = context.sql<MessageRow>("SELECT * FROM messages WHERE id = ?").get(messageId)!;
  const [channel, ...left] = channelsColumn.read(row.channels_left);
  if (!channel || row.fields === null) return false;
  const { fields, mail, phone } = fieldsColumn.read(row.fields);
  const occasion = row.kind as Occasion;
  const language = row.language as Language;
  const template = wordsOf(context, { occasion, words: wordsOfInvite(context, row.invite_id) }, channel, language);
  if (!template) return false;
  const { subject, body } = composed(template, fields, language, channel);
  put(context, {
    ...only(row),
    occasion: row.occasion.replace(new RegExp(` (${channels.join("|")})$`), ` ${channel}`),
    channel,
    recipient: addressOn({ mail, phone }, channel),
    subject,
    body,
    channels_left: JSON.stringify(left),
    fields: left.length ? row.fields : null,
  });
  return true;
}

/** The same message once more, by the same channel. */
export const putAgain = (context: OperationContext, row: MessageRow): number | null =>
  put(context, {
    ...only(row),
    occasion: `${row.occasion} again at ${context.now}`,
    channel: row.channel,
    recipient: row.recipient,
    subject: row.subject,
    body: row.body,
    photos: row.photos,
    written_by: row.written_by,
    channels_left: "[]",
    fields: null,
  });

/** The words of the campaign by which somebody is invited. */
function wordsOfInvite({ sql }: OperationContext, inviteId: number | null): WordsOfItsOwn {
  const campaign =
    inviteId === null
      ? undefined
      : sql<{ texts: string }>(
          "SELECT c.texts FROM campaign_invites i JOIN campaigns c ON c.id = i.campaign_id WHERE i.id = ?",
        ).get(inviteId);
  return campaign ? campaignWords(campaignTextsColumn.read(campaign.texts)) : () => undefined;
}

/** The words of a campaign, as its messages take them. */
export const campaignWords =
  (texts: CampaignTexts): WordsOfItsOwn =>
  (channel, language) =>
    wordsOfCampaign(texts, channel, language);

/** What one message has of another that says the same on another channel. */
const only = (
  row: MessageRow,
): Omit<NewMessage, "occasion" | "channel" | "recipient" | "subject" | "body" | "channels_left" | "fields"> => ({
  kind: row.kind,
  customer_id: row.customer_id,
  thread_id: row.thread_id,
  job_id: row.job_id,
  visit_id: row.visit_id,
  also_visits: row.also_visits,
  window_from: row.window_from,
  repeat_id: row.repeat_id,
  invoice_id: row.invoice_id,
  invite_id: row.invite_id,
  opens: row.opens,
  language: row.language,
  at_any_hour: row.at_any_hour,
});

const writtenToday = ({ sql, now }: OperationContext, recipient: string): number =>
  sql<{ n: number }>("SELECT count(*) AS n FROM messages WHERE recipient = ? AND written_at > ?").get(
    recipient,
    now - dayMs,
  )!.n;
