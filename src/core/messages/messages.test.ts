import fc from "fast-check";
import { localOf } from "../time/local";
import { intoHours } from "./falling";
import { fieldOf } from "./fields";
import { paymentRemindersDue } from "./moments";
import { languages } from "./languages";
import { allOccasions, fieldsOf, kindOf } from "./occasions";
import { channels } from "./purposes";
import { startingText } from "./starting-texts";
import { fieldsIn, fillTemplate, templateProblems } from "./templates";

const zone = "Europe/Lisbon";
const hours = { from: 480, to: 1200 };

describe("when messages go out", () => {
  it("never outside the allowed hours, and never earlier than they were due", () => {
    fc.assert(
      fc.property(fc.integer({ min: 29_000_000, max: 31_000_000 }), (due) => {
        const moment = intoHours(due, "later", hours, zone)!;
        const { minute } = localOf(moment, zone);
        expect(minute >= hours.from && minute < hours.to && moment >= due).toBe(true);
      }),
    );
  });

  it("counts the payment reminders that have fallen due", () => {
    expect(
      [0, 3, 12, 30].map((days) =>
        paymentRemindersDue("2027-03-01", [3, 10, 20], `2027-03-${String(1 + days).padStart(2, "0")}`),
      ),
    ).toEqual([[], [1], [1, 2], [1, 2, 3]]);
  });
});

describe("templates", () => {
  it("fill their merge fields and leave other signs alone", () => {
    expect(fillTemplate({ subject: "{{a}} & <b>", body: "{{a}}" }, { a: "O’Neill & Co" })).toEqual({
      subject: "O’Neill & Co & <b>",
      body: "O’Neill & Co",
    });
  });

  it("refuse a field that nobody knows, by its name", () => {
    expect(() => fillTemplate({ subject: "", body: "{{surname}}" }, {})).toThrow("{{surname}}");
  });

  it("call each service as its reader’s language does, however many there are", () => {
    const names = [
      { name: "Sweep", in: { es: "Deshollinado" } },
      { name: "Sweep, big", in: { es: "Deshollinado, grande" } },
      { name: "Check", in: {} },
    ];
    const said = (title: string, language: "en" | "es") =>
      fillTemplate({ subject: "", body: "{{service}}" }, { service: { title, names } }, language).body;
    expect(said("2 × Sweep, big, Check, Sweep", "es")).toBe("2 × Deshollinado, grande, Check, Deshollinado");
    expect(said("2 × Sweep, big, Check, Sweep", "en")).toBe("2 × Sweep, big, Check, Sweep");
    expect(said("Sweeping brush", "es")).toBe("Sweeping brush");
  });

  it("say a thing in the words of its reader’s language", () => {
    const fields = {
      day: { days: ["2027-03-11", "2027-03-12"] },
      arrival: { arrival: [540, 660] },
      open: { minor: 123_450, currency: "EUR" },
      where: { place: "site", as: "where", site: "3 Mill Lane", ours: "", phone: "" },
    } as const;
    const template = { subject: "", body: "{{day}} {{arrival}} {{where}}: {{open}}" };
    expect(fillTemplate(template, fields, "en").body).toBe(
      "Thursday 11 March and Friday 12 March between 09:00 and 11:00 at 3 Mill Lane: €1,234.50",
    );
    expect(fillTemplate(template, fields, "es").body).toBe(
      "jueves 11 de marzo y viernes 12 de marzo entre las 09:00 y las 11:00 en 3 Mill Lane: 1234,50 €",
    );
  });

  it("have conditions, lists, and the forms of names", () => {
    const body =
      "{{customer_first}}: {{#technician}}{{technician_initials}}{{/technician}}{{^technician}}somebody{{/technician}}{{#visits}}, {{day}}{{/visits}}";
    const visits = [{ day: "Monday" }, { day: "Tuesday" }];
    const filled = (technician: string) =>
      fillTemplate({ subject: "", body }, { customer: "Mira Okonjo", technician, visits }).body;
    expect([filled("Petra Lindqvist"), filled("")]).toEqual([
      "Mira: PL, Monday, Tuesday",
      "Mira: somebody, Monday, Tuesday",
    ]);
  });
});

describe("the starting texts", () => {
  const all = languages.flatMap((language) =>
    allOccasions.flatMap((occasion) =>
      channels.map((channel) => ({ language, occasion, channel, text: startingText(occasion, channel, language) })),
    ),
  );

  it("say who writes, and hold nothing that would be refused in a text of the owner’s", () => {
    for (const { occasion, channel, language, text } of all)
      if (text) {
        expect([occasion, fieldsIn(text.body)]).toEqual([occasion, expect.arrayContaining(["business"])]);
        for (const words of [text.subject, text.body])
          expect([language, channel, occasion, templateProblems(words, fieldsOf(occasion))]).toEqual([
            language,
            channel,
            occasion,
            [],
          ]);
      }
  });

  it("are there for every occasion on each of its channels, in every language alike", () => {
    for (const occasion of allOccasions)
      for (const language of languages)
        for (const channel of kindOf(occasion).channels.filter(
          (one) => one !== "voice" || startingText(occasion, one, "en"),
        ))
          if (startingText(occasion, channel, "en") || channel === kindOf(occasion).channels[0])
            expect([language, occasion, channel, startingText(occasion, channel, language)]).not.toContain(null);
  });
});

describe("a text in which a value is missing", () => {
  const texts = allOccasions.flatMap((occasion) =>
    languages.flatMap((language) =>
      (["mail", "text", "voice"] as const).flatMap((channel) => {
        const text = startingText(occasion, channel, language);
        return text ? [{ occasion, language, channel, text }] : [];
      }),
    ),
  );
  const gaps = /[ ]{2}|[ ][.,;:!?](?!\.)|[,;:]{2}|[,;:][.!?]|(?:^|\n)[.,;:]|\b(?:at|for|to|with|en|para|con)[.,]/;

  it("shows no gap, for every occasion, language and channel, whichever values are not there", () => {
    fc.assert(
      fc.property(fc.constantFrom(...texts), fc.infiniteStream(fc.boolean()), ({ language, text }, isThere) => {
        const names = [...new Set([...fieldsIn(text.subject), ...fieldsIn(text.body)])];
        const fields = Object.fromEntries(
          names.map((name) => [
            name,
            fieldOf(name)?.of
              ? isThere.next().value
                ? [Object.fromEntries(fieldOf(name)!.of!.map((one) => [one, isThere.next().value ? "Value" : ""]))]
                : []
              : name.endsWith("_link") || isThere.next().value
                ? "Value"
                : "",
          ]),
        );
        const { subject, body } = fillTemplate(text, fields, language);
        for (const said of [subject, body]) expect(said).not.toMatch(gaps);
      }),
      { numRuns: 3000 },
    );
  });

  it("closes up around what is not there", () => {
    const said = (body: string) =>
      fillTemplate({ subject: "", body }, { customer: "", where: "", service: "Screens washed" }).body;
    expect(said("Hello {{customer}},\n\n{{service}} at {{where}}. Thank you")).toBe(
      "Hello,\n\nScreens washed. Thank you",
    );
  });
});

describe("a text of the owner’s is refused where a customer would read", () => {
  const allowed = ["customer", "day", "technician", "technician_first", "visits"];
  it.each([
    ["{{surname}}", "There is no field {{surname}}."],
    ["{{invoice}}", "{{invoice}} is not known for this message."],
    [
      "Hello {{technician}}",
      "{{technician}} may be missing: write {{#technician}} … {{/technician}} around the words that need it.",
    ],
    ["{{visits}}", "{{visits}} is a list: write {{#visits}} … {{/visits}} around what is said of each."],
    ["Hello {customer}", "A single brace would be read by the customer: fields are written {{like_this}}."],
    ["Hello {{customer", "A field is not closed: fields are written {{like_this}}."],
    ["{{#technician}} comes", "{{#technician}} is not closed: write {{/technician}} where it ends."],
    ["comes {{/technician}}", "{{/technician}} closes what was not opened: write {{#technician}} where it begins."],
    ["<b>Now</b>", "<b> would be read as it stands: write plain text, and leave an empty line between paragraphs."],
    ["{{{customer}}}", "{{&customer…}} cannot be used here."],
    ["{{> footer}}", "{{>footer…}} cannot be used here."],
  ])("%s", (text, sentence) => expect(templateProblems(text, allowed)[0]).toBe(sentence));

  it("and taken where a condition asks for what may be missing", () => {
    const text =
      "{{#technician}}{{technician_first}} comes{{/technician}} on {{day}}.{{#visits}} {{window}}{{/visits}} 3 < 4";
    expect(templateProblems(text, allowed)).toEqual([]);
  });

  it("whatever is typed: what is taken has no brace left when it is filled", () => {
    const piece = fc.constantFrom(
      "{{customer}}",
      "{{day}}",
      "{",
      "}",
      "{{",
      "}}",
      "{{#technician}}",
      "{{/technician}}",
      "{{technician}}",
      " words ",
      "{{no}}",
    );
    const fields = { customer: "Mira", day: "Monday", technician: "", visits: [] };
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 8 }), (pieces) => {
        const body = pieces.join("");
        fc.pre(templateProblems(body, allowed).length === 0);
        expect(fillTemplate({ subject: "", body }, fields).body).not.toMatch(/[{}]/);
      }),
    );
  });
});
