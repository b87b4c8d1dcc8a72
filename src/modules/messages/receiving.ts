import type { FieldValue } from "@/core/messages/fields";
import { type Meaning, meaningsOf } from "@/core/messages/answers";
import { dayMs } from "@/core/horizons";
import type { Occasion } from "@/core/messages/occasions";
import type { Channel } from "@/core/messages/purposes";
import { isSameMail } from "@/core/people/matching";
import { phoneKept } from "@/core/people/phones";
import { visitStates } from "@/core/visits/states";
import type { OperationContext } from "@/kernel/operation";
import { languages } from "@/core/messages/languages";
import { dangerWordsColumn, idsColumn } from "@/store/columns";
import { insertOnce } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { saidTitle } from "@/store/service-names";
import { tellAsker, tellCustomer, timesOf } from "./messaging";
import { noteTheirs, threadOfCustomer, threadOfStranger } from "./threads";
import { addToJob } from "@/modules/jobs/work";
import { confirmJobs } from "@/modules/jobs/visits";
import { noteConsent } from "@/modules/customers/consents";

/** Something that has come in by one of the channels. */
export interface Incoming {
  channel: Channel;
  /** By which its gateway names it: the same one comes in once. */
  key: string;
  /** An email address or a phone number. */
  sender: string;
  senderName?: string;
  subject?: string;
  body: string;
  photos?: string[];
  /** The Message-ID of an email, and those it answers. */
  mailId?: string | null;
  answers?: readonly string[];
  recording?: string | null;
  seconds?: number | null;
  /** What it means, where that is not read from its words: a key that was pressed. */
  means?: Meaning[];
}

/**
 * Takes in what somebody has written, or said: into the conversation with whoever it is from. What is understood for certain is
 * done at once and confirmed; all else waits for a person. Answers false where it had come in before.
 */
export function receive(context: OperationContext, incoming: Incoming): boolean {
  const { sql, now, business } = context;
  const sender = incoming.channel === "mail" ? incoming.sender.trim() : phoneKept(incoming.sender, business.phone);
  const claimed = whatWasSent(context, incoming, sender);
  // Whoever names one of our mails has seen it, or says so: it is theirs when they write from where it went, or from an address of theirs.
  const asked = claimed && isFrom(context, claimed, incoming.channel, sender) ? claimed : undefined;
  const customerId = asked?.customer_id ?? customerWith(context, incoming.channel, sender);
  const threadId =
    customerId !== null
      ? threadOfCustomer(context, customerId)
      : (asked?.thread_id ??
        threadOfStranger(context, {
          name: incoming.senderName ?? "",
          mail: incoming.channel === "mail" ? sender : "",
          phone: incoming.channel === "mail" ? "" : sender,
        }));
  const meanings =
    incoming.means ?? (incoming.recording ? [] : meaningsOf(incoming.body, knownOf(context, customerId)));
  const id = insertOnce(sql, "replies", {
    thread_id: threadId,
    customer_id: customerId,
    channel: incoming.channel,
    key: incoming.key,
    sender,
    subject: incoming.subject ?? "",
    body: incoming.body,
    received_at: now,
    mail_id: incoming.mailId ?? null,
    // Where it is somebody else’s message, the office sees which it claims to answer.
    answers_id: claimed?.id ?? null,
    understood: JSON.stringify(meanings),
    photos: JSON.stringify(incoming.photos ?? []),
    recording: incoming.recording ?? null,
    seconds: incoming.seconds ?? null,
  });
  if (id === null) return false;
  const meant = customerId === null ? null : visitMeant(context, customerId, asked ?? null);
  const isDone = act(
    context,
    { ...incoming, sender },
    {
      id,
      meanings,
      visits: meant ?? [],
      asked: asked?.visit_id != null || incoming.means !== undefined,
      customerId,
      threadId,
    },
  );
  noteTheirs(context, threadId, summaryOf(incoming), !isDone);
  return true;
}

const summaryOf = ({ body, photos = [], recording }: Incoming): string =>
  body.trim() || (recording ? "A call that nobody took" : photos.length ? "A photo" : "");

interface SentBefore {
  id: number;
  recipient: string;
  customer_id: number | null;
  thread_id: number | null;
  visit_id: number | null;
  also_visits: string;
}

/** So long a text may be the answer to what was sent last. */
const answersWithinMs = 30 * dayMs;

/** The message of ours that it answers: an email by its headers; else the last one to this number that asked, or that was about a visit to come, or the last. */
function whatWasSent(
  { sql, now }: OperationContext,
  { channel, answers = [] }: Incoming,
  sender: string,
): SentBefore | undefined {
  if (channel === "mail")
    return sql<SentBefore>(
      `SELECT id, recipient, customer_id, thread_id, visit_id, also_visits FROM messages
        WHERE channel = 'mail' AND reference IN (SELECT value FROM json_each(?)) ORDER BY id DESC LIMIT 1`,
    ).get(JSON.stringify(answers));
  return sql<SentBefore>(
    `SELECT id, recipient, customer_id, thread_id, visit_id, also_visits FROM messages
      WHERE recipient = @sender AND written_at > @since AND channel IN ('text', 'voice') AND (customer_id IS NOT NULL OR thread_id IS NOT NULL)
        AND state NOT IN ('dropped', 'waiting') ORDER BY (kind = 'please confirm' AND window_from > @began) DESC,
        (visit_id IS NOT NULL AND window_from > @began) DESC, id DESC LIMIT 1`,
  ).get({ sender, since: now - answersWithinMs, began: Math.floor(now / 60_000) - 1440 });
}

/** Whether whoever writes is whom the message went to, or the customer it was about under another of their addresses. */
const isFrom = (context: OperationContext, sent: SentBefore, channel: Channel, sender: string): boolean =>
  channel !== "mail" ||
  isSameMail(sender, sent.recipient) ||
  (sent.customer_id !== null && sent.customer_id === customerWith(context, channel, sender));

/** The one customer with this address; null where there is none, or more than one. */
function customerWith({ sql }: OperationContext, channel: Channel, sender: string): number | null {
  const by = channel === "mail" ? "mail" : "phone";
  const found = sql<{ id: number }>(
    `SELECT id FROM customers WHERE ${by} = @sender AND merged_into IS NULL AND erased_at IS NULL
      UNION SELECT j.customer_id FROM jobs j JOIN customers c ON c.id = j.customer_id
        WHERE j.${by} = @sender AND j.proof NOT IN ('none', 'asked') AND c.merged_into IS NULL AND c.erased_at IS NULL LIMIT 2`,
  ).all({ sender });
  return found.length === 1 ? found[0]!.id : null;
}

interface VisitMeant {
  id: number;
  job_id: number;
}

/**
 * The visits that are meant: those we had written about, as far as they are still to come; where we had written about none, the
 * next that is promised.
 */
function visitMeant({ sql, minute }: OperationContext, customerId: number, asked: SentBefore | null): VisitMeant[] {
  const about = asked?.visit_id == null ? null : [asked.visit_id, ...idsColumn.read(asked.also_visits)];
  return sql<VisitMeant>(
    `SELECT v.id, v.job_id FROM visits v JOIN jobs j ON j.id = v.job_id
      WHERE j.customer_id = @customerId AND j.state = 'agreed' AND v.state IN ${visitStates.sql("expect")} AND v.window_to > @minute
        AND (@about IS NULL OR v.id IN (SELECT value FROM json_each(@about)))
      ORDER BY v.window_from, v.id LIMIT ${about?.length ?? 1}`,
  ).all({ customerId, about: about && JSON.stringify(about), minute });
}

/** By which names somebody may call us or sign, and what is danger in the owner's words. */
function knownOf({ sql, business }: OperationContext, customerId: number | null) {
  const customer = sql<{ name: string }>("SELECT name FROM customers WHERE id = ?").get(customerId);
  const ours = sql<{ name: string }>(
    "SELECT name FROM technicians WHERE active = 1 UNION SELECT name FROM people WHERE active = 1",
  ).all();
  const own = business.danger_words === null ? null : dangerWordsColumn.read(business.danger_words);
  return {
    names: [business.name, customer?.name ?? "", ...ours.map(({ name }) => name)],
    ...(own && { dangers: languages.flatMap((language) => own[language]) }),
  };
}

interface Understood {
  id: number;
  meanings: readonly Meaning[];
  visits: readonly VisitMeant[];
  /** Whether it answers a message about a visit, or a call of ours: a yes to anything else confirms none. */
  asked: boolean;
  customerId: number | null;
  threadId: number;
}

/** Does what was understood. Answers whether nothing is left for a person. */
function act(context: OperationContext, incoming: Incoming, of: Understood): boolean {
  const { meanings, visits } = of;
  const [visit = null] = visits;
  const [first] = meanings;
  if (first === "stop" || first === "start" || first === "help") {
    // By email or on the phone somebody may mean another thing, and bills go there too: a person reads it.
    if (incoming.channel !== "text") return false;
    command(context, incoming, of, first);
    return true;
  }
  const photos = incoming.photos ?? [];
  if (visit && photos.length) addToJob(context, visit.job_id, { words: incoming.body, photos });
  const isConfirmed = of.asked && visit !== null && meanings.includes("confirms");
  if (isConfirmed) confirmVisits(context, visits, of.id);
  if (visit && (meanings.includes("wishes to move") || meanings.includes("wishes to cancel")))
    tellCustomer(context, {
      jobId: visit.job_id,
      visitId: visit.id,
      occasion: "other times",
      about: `reply ${of.id}`,
      answer: true,
    });
  if (photos.length && visit && !incoming.body.trim()) return true;
  if (meanings.includes("thanks")) return true;
  return isConfirmed;
}

/** The visits of an answer are confirmed, with all days of their work, and their customer is told which. */
export function confirmVisits(context: OperationContext, visits: readonly VisitMeant[], replyId: number): void {
  const [first, ...more] = visits;
  if (!first) return;
  confirmJobs(
    context,
    visits.map(({ job_id }) => job_id),
  );
  tellCustomer(context, {
    jobId: first.job_id,
    visitId: first.id,
    occasion: "answer understood",
    about: `reply ${replyId}`,
    fields: { visits: more.map(({ id }) => fieldsOfOne(context, id)) },
    answer: true,
  });
}

function fieldsOfOne({ sql, business }: OperationContext, visitId: number): Record<string, FieldValue> {
  const visit = sql<Rows["visits"]>("SELECT * FROM visits WHERE id = ?").get(visitId)!;
  return { ...timesOf(business.time_zone, [visit]), service: saidTitle(sql, visit.title) } as Record<
    string,
    FieldValue
  >;
}

/** The visits that the answer of a customer is about, as it was when it came in. */
export function visitsOfReply(context: OperationContext, reply: Rows["replies"]): VisitMeant[] {
  const asked = context
    .sql<SentBefore>("SELECT id, recipient, customer_id, thread_id, visit_id, also_visits FROM messages WHERE id = ?")
    .get(reply.answers_id);
  return reply.customer_id === null ? [] : visitMeant(context, reply.customer_id, asked ?? null);
}

const answerTo = { stop: "stopped", start: "started", help: "help" } as const satisfies Record<string, Occasion>;

/** STOP, START and HELP do at once what they say, and are confirmed. */
function command(
  context: OperationContext,
  { channel, sender, body }: Incoming,
  { id, customerId, threadId }: Understood,
  said: "stop" | "start" | "help",
): void {
  if (said === "stop") endChannel(context, { channel, address: sender, customerId, how: body.trim() });
  if (said === "start") beginChannel(context, { channel, address: sender, customerId, how: body.trim() });
  tellAsker(
    context,
    { name: "", mail: "", phone: sender },
    { occasion: answerTo[said], about: `reply ${id}`, fields: {}, answer: true, threadId, customerId },
  );
}

interface ChannelOf {
  channel: Channel;
  address: string;
  customerId: number | null;
  /** In whose words. */
  how: string;
}

/** Nothing goes to this address on this channel from now on. */
export function endChannel(context: OperationContext, { channel, address, customerId, how }: ChannelOf): void {
  const ended = insertOnce(context.sql, "stops", { channel, address, since: context.now, how });
  if (ended !== null) noteChannel(context, customerId, channel, false, how);
}

/** The address is written to on this channel again. */
export function beginChannel(context: OperationContext, { channel, address, customerId, how }: ChannelOf): void {
  const { changes } = context.sql("DELETE FROM stops WHERE channel = ? AND address = ?").run(channel, address);
  if (changes) noteChannel(context, customerId, channel, true, how);
}

/** What they have said stands in the history of what they have agreed to. */
function noteChannel(
  context: OperationContext,
  customerId: number | null,
  channel: Channel,
  given: boolean,
  words: string,
): void {
  if (customerId === null) return;
  const agreed = context
    .sql<{ reminders: 0 | 1; offers: 0 | 1 }>("SELECT reminders, offers FROM customers WHERE id = ?")
    .get(customerId);
  // What begins again is what they had agreed to before, and no more.
  for (const kind of (["reminders", "offers"] as const).filter((one) => !given || agreed?.[one] === 1))
    noteConsent(context, customerId, { kind, given, words, channel });
}
