import { dangers } from "@/core/messages/answers";
import { dangerWordsColumn } from "@/store/columns";
import { momentIn } from "@/core/time/local-words";
import { fieldOf, type FieldName } from "@/core/messages/fields";
import { type Language, languages } from "@/core/messages/languages";
import { allOccasions, fieldsOf, kindOf, type Occasion } from "@/core/messages/occasions";
import { type Channel, channels } from "@/core/messages/purposes";
import { startingText } from "@/core/messages/starting-texts";
import { plainSigns } from "@/core/messages/segments";
import { fillTemplate } from "@/core/messages/templates";
import { Refusal } from "@/core/problems";
import { Id, input, Nothing, OrNull } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { jsonRowColumn } from "@/store/columns";
import { readFrontDoor } from "@/store/front-door";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { ChannelName, LanguageName, OccasionName } from "../inputs";
import type { MailParts } from "@/gateways/mail-parts";
import { linkPlaceholder, stopPlaceholder } from "../messaging";
import { reminderRules } from "../reminders";
import { sampleFields, samples } from "../samples";
import { quickAnswers, settingsOf, templateOf } from "../settings";

/** All that set-up says of messages: every occasion, when reminders fall, as whom each channel sends and what it still misses. */
export const messageSetup = defineView({
  name: "message-setup",
  access: "setup.change of all",
  input: Nothing,
  read(context) {
    const { sql, business } = context;
    const own = new Set(
      sql<{ key: string }>("SELECT occasion || ' ' || channel || ' ' || language AS key FROM templates")
        .all()
        .map(({ key }) => key),
    );
    return {
      rules: {
        from: business.message_from,
        to: business.message_to,
        mostADay: business.most_messages,
        urgentMinutes: business.urgent_minutes,
        language: business.language as Language,
        partMilli: business.text_part_milli,
        countsOpened: business.counts_opened === 1,
        eveningAt: business.evening_at,
        morningAt: business.morning_at,
        dangers: business.danger_words === null ? copyOf(dangers) : dangerWordsColumn.read(business.danger_words),
        quickAnswers: quickAnswers(context).map(({ name, words }) => ({ name, words: { ...words } })),
        rules: reminderRules(context).map((rule) => ({
          id: rule.id as number | null,
          daysBefore: rule.days_before,
          at: rule.at_minute,
          minutesBefore: rule.minutes_before,
          outside: rule.outside,
          asks: rule.asks === 1,
        })),
      },
      currency: business.currency,
      occasions: allOccasions.map((occasion) => {
        const { group, name, about, always, purpose } = kindOf(occasion);
        return {
          occasion,
          group,
          name,
          about,
          purpose,
          always: always ?? false,
          ...settingsOf(context, occasion),
          texts: channels.filter((channel) => templateOf(context, occasion, channel, business.language) !== null),
          changed: languages.some((language) =>
            channels.some((channel) => own.has(`${occasion} ${channel} ${language}`)),
          ),
        };
      }),
      senders: channels.map((channel) => senderState(context, channel)),
      samples: samples(context),
    };
  },
});

const copyOf = (words: Record<Language, readonly string[]>): Record<Language, string[]> => ({
  en: [...words.en],
  es: [...words.es],
});

/** How a channel sends, and what it still misses, in plain words. */
function senderState({ sql, hogar, business }: ViewContext, channel: Channel) {
  const own = sql<Rows["senders"]>("SELECT * FROM senders WHERE channel = ?").get(channel);
  const address = own?.address ?? (channel === "mail" ? business.mail : "");
  const isOpen = hogar.gateways[channel] !== null;
  const isStandin = hogar.standins !== null && hogar.gateways[channel] === hogar.standins[channel];
  const last = sql<{ state: string; at: number | null; problem: string }>(
    "SELECT state, sent_at AS at, problem FROM messages WHERE channel = ? AND kind = 'test' ORDER BY id DESC LIMIT 1",
  ).get(channel);
  const missing: string[] = [];
  if (!isOpen)
    missing.push(
      channel === "mail"
        ? "No mail server is connected: set SMTP_URL where Hogar is started."
        : `No ${channel === "text" ? "text" : "voice"} service is connected, so nothing goes out this way.`,
    );
  else if (!address)
    missing.push(
      "No number is registered yet: without one your service may refuse to send, or send under a number that nobody knows.",
    );
  const failing = sql<Rows["lanes"]>("SELECT * FROM lanes WHERE lane = ? AND paused_until > 0").get(channel);
  if (failing)
    missing.push(
      `Nothing has gone out since ${momentIn(failing.failing_since, business.time_zone)}: ${failing.problem}. It is tried again by itself.`,
    );
  return {
    channel,
    name: own?.name ?? (channel === "mail" ? business.name : ""),
    address,
    isOpen,
    isStandin,
    missing,
    lastTest: last ?? null,
  };
}

/** The words of an occasion on a channel, with those it starts with, its fields, and who has changed it. */
export const template = defineView({
  name: "template",
  access: "setup.change",
  input: input({ occasion: OccasionName, channel: ChannelName, language: LanguageName }),
  read(context, { occasion, channel, language }) {
    const key = [occasion, channel, language].join(" ");
    return {
      words: templateOf(context, occasion, channel, language) ?? { subject: "", body: "" },
      isOwn: isOwn(context, occasion, channel, language),
      starting: startingText(occasion, channel, language),
      legend: fieldsOf(occasion).map((name) => ({ name, ...legendOf(name) })),
      history: historyOf(context, key),
      partMilli: context.business.text_part_milli,
      currency: context.business.currency,
    };
  },
});

const isOwn = ({ sql }: ViewContext, occasion: Occasion, channel: Channel, language: Language): boolean =>
  sql("SELECT 1 FROM templates WHERE occasion = ? AND channel = ? AND language = ?").get(
    occasion,
    channel,
    language,
  ) !== undefined;

const legendOf = (name: FieldName) => {
  const field = fieldOf(name)!;
  return { about: field.about, mayMiss: field.mayMiss === true, of: field.of ? [...field.of] : [] };
};

/** Who changed a text and when, newest first, with the words as they became. */
const historyOf = ({ sql }: ViewContext, key: string) =>
  sql<{ id: number; at: number; actor: string; after: string | null }>(
    `SELECT c.id, a.at, a.actor, c.after FROM audit_changes c JOIN audit a ON a.id = c.audit_id
      WHERE c.entity = 'templates' AND c.row_key = ? ORDER BY c.id DESC LIMIT 20`,
  )
    .all(key)
    .map(({ after, actor, ...change }) => {
      const row = after === null ? null : jsonRowColumn.read(after);
      return {
        ...change,
        by: actor.replace(/^person \d+ /, ""),
        words: row && { subject: String(row.subject), body: String(row.body) },
      };
    });

/** Words as a customer would get them, of a real visit or invoice: on the phone, and as an email. Words that are not in order yet are said so. */
export const previewMessage = defineView({
  name: "preview-message",
  access: "setup.change",
  input: input({
    occasion: OccasionName,
    channel: ChannelName,
    language: LanguageName,
    subject: Type.String({ maxLength: 400 }),
    body: Type.String({ maxLength: 8_000 }),
    /** A visit to show it with; null: one that was made up. */
    visitId: OrNull(Id),
  }),
  about: { visitId: "visit" },
  read(context, { occasion, channel, language, subject, body, visitId }) {
    const { hogar, business } = context;
    const filled = (() => {
      try {
        return fillTemplate({ subject, body }, sampleFields(context, occasion, visitId), language);
      } catch {
        throw new Refusal("invalid-input", {
          fields: { "/body": "There is something in it that cannot be filled in yet." },
        });
      }
    })();
    const links = {
      [linkPlaceholder]: `${hogar.publicUrl}/s/4f-h7Kd2mQx`,
      [stopPlaceholder]: `${hogar.publicUrl}/stop/12.h7Kd2mQx`,
    };
    if (channel === "text") filled.body = plainSigns(filled.body);
    const said = Object.entries(links).reduce(
      (words, [placeholder, address]) => words.replaceAll(placeholder, address),
      filled.body,
    );
    return {
      subject: filled.subject,
      text: said,
      mail: {
        subject: filled.subject,
        body: filled.body,
        links,
        language,
        business: { name: business.name, phone: business.phone, address: business.address },
        mark: business.mark && `/api/images/${business.mark}`,
        accent: readFrontDoor(hogar.store).accent,
        opened: null,
      } satisfies MailParts,
    };
  },
});
