import fc from "fast-check";
import { epochMinute, localOf } from "../time/local";
import { paymentRemindersDue, visitReminderAt, withinAllowedHours } from "./moments";
import { standardTexts } from "./standard";
import { fieldsIn, fillTemplate } from "./templates";

const zone = "Europe/Lisbon";
const hours = { from: 480, to: 1200 };
const at = (date: string, minute: number) => epochMinute(date, minute, zone);

describe("when messages go out", () => {
  it("never outside the allowed hours, and never earlier than they were due", () => {
    fc.assert(
      fc.property(fc.integer({ min: 29_000_000, max: 31_000_000 }), (due) => {
        const moment = withinAllowedHours(due, hours, zone);
        const { minute } = localOf(moment, zone);
        expect(minute >= hours.from && minute < hours.to && moment >= due).toBe(true);
      }),
    );
  });

  it("reminds a day before, and where that would be at night, in the hours before it", () => {
    expect(visitReminderAt(at("2027-03-11", 540), 24, hours, zone)).toBe(at("2027-03-10", 540));
    expect(visitReminderAt(at("2027-03-11", 420), 24, hours, zone)).toBe(at("2027-03-09", 1199));
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

  it("of the business all speak of it, so that customers know who writes", () => {
    for (const [occasion, { mail, text }] of Object.entries(standardTexts))
      for (const body of [mail?.body, text])
        if (body) expect([occasion, fieldsIn(body)]).toEqual([occasion, expect.arrayContaining(["business"])]);
  });
});
