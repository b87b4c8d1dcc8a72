import { type Language, languages } from "@/core/messages/languages";
import { templateProblems } from "@/core/messages/templates";
import { Refusal } from "@/core/problems";
import { Id, input, MinuteOfDay, Name, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { dangerWordsColumn, quickAnswersColumn } from "@/store/columns";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { LanguageName } from "../inputs";
import { lookAtAllAgain, reminderRules } from "../reminders";
import { saveSettings } from "@/kernel/settings";

const Rule = Type.Object(
  {
    id: OrNull(Id),
    /** At a time of day so many days before; or null. */
    daysBefore: OrNull(Type.Integer({ minimum: 0, maximum: 60 })),
    at: OrNull(MinuteOfDay),
    /** So many minutes before the window opens; or null. */
    minutesBefore: OrNull(Type.Integer({ minimum: 1, maximum: 86_400 })),
    outside: OneOf(["earlier", "later", "drop"]),
    asks: Type.Boolean(),
  },
  { additionalProperties: false },
);

const AnswerWords = Type.String({ maxLength: 1_000 });
const DangerWords = Type.Array(Type.String({ minLength: 1, maxLength: 40 }), { maxItems: 60 });

/** When customers may be written to, in which language, how much on one day; and when visits are reminded of. */
export const saveMessageRules = defineOperation({
  name: "save-message-rules",
  access: "setup.change",
  input: input({
    from: MinuteOfDay,
    to: MinuteOfDay,
    mostADay: Type.Integer({ minimum: 1, maximum: 50 }),
    /** A change of a visit is told at night where it begins within so many minutes after the hours begin; absent: as it is. */
    urgentMinutes: Type.Optional(Type.Integer({ minimum: 0, maximum: 2_880 })),
    language: LanguageName,
    /** What one part of a text costs, in thousandths of the currency's unit. */
    partMilli: Type.Integer({ minimum: 0, maximum: 100_000 }),
    countsOpened: Type.Boolean(),
    /** When our own people get their lists and summaries; absent: as it is. */
    eveningAt: Type.Optional(MinuteOfDay),
    morningAt: Type.Optional(MinuteOfDay),
    rules: Type.Array(Rule, { maxItems: 12 }),
    /** Words with which answers by hand begin; absent: as they are. */
    quickAnswers: Type.Optional(
      Type.Array(
        input({ name: Name, words: input({ en: AnswerWords, es: AnswerWords } satisfies Record<Language, unknown>) }),
        {
          maxItems: 30,
        },
      ),
    ),
    /** Words by which customers say that they are in danger, by language; absent: as they are. */
    dangers: Type.Optional(input({ en: DangerWords, es: DangerWords } satisfies Record<Language, typeof DangerWords>)),
  }),
  about: { rules: "shared" },
  run(
    context,
    {
      from,
      to,
      mostADay,
      language,
      partMilli,
      countsOpened,
      eveningAt,
      morningAt,
      rules,
      dangers,
      urgentMinutes,
      quickAnswers,
    },
  ) {
    const { sql } = context;
    const fields: Record<string, string> = {};
    if (to <= from) fields["/to"] = "The hours end after they begin.";
    for (const [i, rule] of rules.entries()) {
      const byDay = rule.daysBefore !== null && rule.at !== null;
      if (byDay === (rule.minutesBefore !== null))
        fields[`/rules/${i}`] = "Say when: some days before at a time, or some hours before.";
    }
    for (const [i, { words }] of (quickAnswers ?? []).entries())
      for (const language of languages)
        for (const problem of templateProblems(words[language], ["my_link"]))
          fields[`/quickAnswers/${i}/words/${language}`] = problem;
    if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
    saveSettings(context, {
      message_from: from,
      message_to: to,
      most_messages: mostADay,
      language,
      text_part_milli: partMilli,
      counts_opened: countsOpened ? 1 : 0,
      evening_at: eveningAt,
      morning_at: morningAt,
      danger_words: dangers && dangerWordsColumn.write(dangers),
      urgent_minutes: urgentMinutes,
      quick_answers: quickAnswers && quickAnswersColumn.write(quickAnswers),
    });
    const kept = new Set(rules.map(({ id }) => id));
    for (const { id } of reminderRules(context))
      if (!kept.has(id)) sql("DELETE FROM reminder_rules WHERE id = ?").run(id);
    for (const { id, daysBefore, at, minutesBefore, outside, asks } of rules) {
      const values = {
        days_before: daysBefore,
        at_minute: at,
        minutes_before: minutesBefore,
        outside,
        asks: asks ? (1 as const) : (0 as const),
      };
      const { changes } = sql(
        `UPDATE reminder_rules SET days_before = @days_before, at_minute = @at_minute, minutes_before = @minutes_before,
            outside = @outside, asks = @asks WHERE id = @id`,
      ).run({ id, ...values });
      if (!changes) insertRow(sql, "reminder_rules", values);
    }
    lookAtAllAgain(context);
  },
});
