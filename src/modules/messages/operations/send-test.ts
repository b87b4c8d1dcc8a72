import { isMailAddress } from "@/core/people/mail-address";
import { Refusal } from "@/core/problems";
import { fieldsOf } from "@/core/messages/occasions";
import { fillTemplate, templateProblems } from "@/core/messages/templates";
import { Id, input, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { ChannelName, LanguageName, OccasionName } from "../inputs";
import { sampleFields } from "../samples";
import { put } from "../writing";

/** Sends words to oneself, as a customer would get them; nobody else is written to. */
export const sendTest = defineOperation({
  name: "send-test",
  access: "setup.change",
  about: { visitId: "visit" },
  input: input({
    occasion: OccasionName,
    channel: ChannelName,
    language: LanguageName,
    subject: Type.String({ maxLength: 400 }),
    body: Type.String({ minLength: 1, maxLength: 8_000 }),
    visitId: OrNull(Id),
    to: Type.String({ minLength: 3, maxLength: 120 }),
  }),
  run(context, { occasion, channel, language, subject, body, visitId, to }) {
    const wrong = [...templateProblems(subject, fieldsOf(occasion)), ...templateProblems(body, fieldsOf(occasion))][0];
    if (wrong) throw new Refusal("invalid-input", { fields: { "/body": wrong } });
    if (channel === "mail" ? !isMailAddress(to.trim()) : to.replace(/\D/g, "").length < 6)
      throw new Refusal("invalid-input", {
        fields: {
          "/to": channel === "mail" ? "Write an email address." : "Write a phone number, such as +1 555 0142.",
        },
      });
    if (!context.hogar.gateways[channel])
      throw new Refusal("invalid-input", { fields: { "/channel": "Nothing can be sent this way yet." } });
    const filled = fillTemplate({ subject, body }, sampleFields(context, occasion, visitId), language);
    put(context, {
      occasion: `test at ${context.now} ${channel}`,
      kind: "test",
      channel,
      customer_id: null,
      thread_id: null,
      job_id: null,
      visit_id: null,
      window_from: null,
      repeat_id: null,
      invoice_id: null,
      opens: null,
      recipient: to.trim(),
      language,
      subject: filled.subject,
      body: filled.body,
      channels_left: "[]",
      fields: null,
      at_any_hour: 1,
    });
  },
});
