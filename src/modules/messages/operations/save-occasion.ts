import { isMailAddress } from "@/core/people/mail-address";
import { fieldsOf, kindOf } from "@/core/messages/occasions";
import { channelNames } from "@/core/messages/purposes";
import { startingText } from "@/core/messages/starting-texts";
import { templateProblems } from "@/core/messages/templates";
import { Refusal } from "@/core/problems";
import { input, OneOf } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { ChannelName, LanguageName, OccasionName } from "../inputs";
import { templateOf } from "../settings";

/** Whether an occasion is told, by which channels in which order, and what becomes of it outside the allowed hours. */
export const saveOccasion = defineOperation({
  name: "save-occasion",
  access: "setup.change",
  input: input({
    occasion: OccasionName,
    on: Type.Boolean(),
    channels: Type.Array(ChannelName, { minItems: 1, maxItems: 3, uniqueItems: true }),
    each: Type.Boolean(),
    outside: OneOf(["earlier", "later", "drop", "other"]),
  }),
  run(context, { occasion, on, channels, each, outside }) {
    const { always } = kindOf(occasion);
    if (!on && always)
      throw new Refusal("invalid-input", {
        fields: { "/on": "This one cannot be switched off: somebody relies on it." },
      });
    const silent = channels.findIndex(
      (channel) => templateOf(context, occasion, channel, context.business.language) === null,
    );
    if (silent >= 0)
      throw new Refusal("invalid-input", {
        fields: {
          [`/channels/${silent}`]: `There are no words for it as a ${channelNames[channels[silent]!]}: write them first.`,
        },
      });
    context
      .sql(
        `INSERT INTO occasions (occasion, is_on, channels, each, outside) VALUES (?, ?, ?, ?, ?)
          ON CONFLICT (occasion) DO UPDATE SET is_on = excluded.is_on, channels = excluded.channels, each = excluded.each, outside = excluded.outside`,
      )
      .run(occasion, on ? 1 : 0, JSON.stringify(channels), each ? 1 : 0, outside);
  },
});

const WhichText = { occasion: OccasionName, channel: ChannelName, language: LanguageName };
const mostLetters = { mail: 8_000, text: 900, voice: 1_500 } as const;

/** The owner's own words for an occasion: nothing is saved that a customer would read as a gap, a brace or a tag. */
export const saveTemplate = defineOperation({
  name: "save-template",
  access: "setup.change",
  input: input({
    ...WhichText,
    subject: Type.String({ maxLength: 200 }),
    body: Type.String({ maxLength: 8_000 }),
  }),
  run({ sql }, { occasion, channel, language, subject, body }) {
    const allowed = fieldsOf(occasion);
    const fields: Record<string, string> = {};
    const wrong = (field: "subject" | "body", text: string) => {
      const [first] = templateProblems(text, allowed);
      if (first) fields[`/${field}`] = first;
    };
    wrong("subject", subject);
    wrong("body", body);
    if (!body.trim()) fields["/body"] = "Write what it says.";
    if (channel === "mail" && !subject.trim()) fields["/subject"] = "Write what the email is called.";
    if (body.length > mostLetters[channel]) fields["/body"] = `At most ${mostLetters[channel]} letters.`;
    if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
    sql(
      `INSERT INTO templates (occasion, channel, language, subject, body) VALUES (?, ?, ?, ?, ?)
        ON CONFLICT (occasion, channel, language) DO UPDATE SET subject = excluded.subject, body = excluded.body`,
    ).run(
      occasion,
      channel,
      language,
      channel === "mail" ? subject.trim() : "",
      `${body.trim()}${channel === "mail" ? "\n" : ""}`,
    );
  },
});

/** Back to the words that a business starts with. */
export const resetTemplate = defineOperation({
  name: "reset-template",
  access: "setup.change",
  input: input(WhichText),
  run({ sql }, { occasion, channel, language }) {
    if (startingText(occasion, channel, language) === null)
      throw new Refusal("invalid-input", { fields: { "/channel": "There is no starting text for it." } });
    sql("DELETE FROM templates WHERE occasion = ? AND channel = ? AND language = ?").run(occasion, channel, language);
  },
});

/** As whom a channel sends. */
export const saveSender = defineOperation({
  name: "save-sender",
  access: "setup.change",
  input: input({
    channel: ChannelName,
    name: Type.String({ maxLength: 60 }),
    address: Type.String({ maxLength: 120 }),
  }),
  run({ sql }, { channel, name, address }) {
    const to = address.trim();
    if (channel === "mail" ? !isMailAddress(to) : !/^\+?[\d ()./-]{3,20}$/.test(to))
      throw new Refusal("invalid-input", {
        fields: {
          "/address": channel === "mail" ? "Write an email address." : "Write a phone number, such as +1 555 0142.",
        },
      });
    sql(
      `INSERT INTO senders (channel, name, address) VALUES (?, ?, ?)
        ON CONFLICT (channel) DO UPDATE SET name = excluded.name, address = excluded.address`,
    ).run(channel, name.trim(), to);
  },
});
