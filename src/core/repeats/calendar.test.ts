import { addDays } from "../time/dates";
import fc from "fast-check";
import ICAL from "ical.js";
import { calendarFile } from "../messages/calendar-file";
import { repeatCalendar } from "./calendar";
import { datesOfRule, readRule } from "./recurrence";

const about = {
  title: "Chimney sweep",
  place: "12 Alder Road",
  words: "",
  tentative: false,
  now: 30_000_000,
  timeZone: "Europe/Lisbon",
};
const series = {
  uid: "repeat-7",
  rule: "FREQ=WEEKLY;INTERVAL=2",
  start: "2027-03-10",
  window: [540, 660] as const,
  until: null,
  leftOut: [],
  moved: [],
};

/** When a calendar program says that somebody comes, up to a day. */
function shownBy(text: string, until: string): string[] {
  const events = new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents("vevent");
  const [main, ...others] = events.map((event) => new ICAL.Event(event));
  for (const other of others) main!.relateException(other);
  const shown: string[] = [];
  const dates = main!.iterator();
  for (let next = dates.next(); next && next.toString() < `${until}T23`; next = dates.next())
    shown.push(main!.getOccurrenceDetails(next).startDate.toString());
  return shown;
}

describe("a repeat in a calendar program", () => {
  it("leaves out what does not take place, and shows elsewhere what was moved", () => {
    const text = repeatCalendar(
      {
        ...about,
        series: [
          {
            ...series,
            leftOut: ["2027-03-24"],
            moved: [{ date: "2027-04-07", day: "2027-04-08", window: [780, 900] as const }],
          },
        ],
      },
      "Marrowick",
    );
    expect(shownBy(text, "2027-04-30")).toEqual(["2027-03-10T09:00:00", "2027-04-08T13:00:00", "2027-04-21T09:00:00"]);
    expect(text).toContain("RRULE:FREQ=WEEKLY;INTERVAL=2");
    expect(text).toContain("EXDATE;TZID=Europe/Lisbon:20270324T090000");
    expect(text).toContain("RECURRENCE-ID;TZID=Europe/Lisbon:20270407T090000");
  });

  it("shows the same hours on a phone elsewhere as the file of the visit does", () => {
    const text = repeatCalendar({ ...about, series: [{ ...series, start: "2027-06-09" }] }, "Marrowick");
    const [event] = new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents("vevent");
    const begins = new ICAL.Event(event).startDate.toUnixTime() / 60;
    const visit = calendarFile(
      [{ ...about, uid: "visit-7", from: begins, to: begins + 120, sequence: 0, cancelled: false }],
      "Marrowick",
    );
    // Nine by the clock of Lisbon in summer.
    expect(visit).toContain("DTSTART:20270609T080000Z");
    expect(text).toContain("BEGIN:VTIMEZONE");
  });

  it("has the hours of whichever clock shows them where the zone has no name", () => {
    const text = repeatCalendar({ ...about, timeZone: "Nowhere/Land", series: [series] }, "Marrowick");
    expect(text).toContain("DTSTART:20270310T090000\r\n");
  });

  it("ends where other terms begin, also where it was agreed for so many visits", () => {
    const cut = { ...series, rule: "FREQ=WEEKLY;COUNT=20", until: "2027-03-24" };
    const text = repeatCalendar({ ...about, series: [cut] }, "Marrowick");
    expect(shownBy(text, "2027-12-31")).toEqual(["2027-03-10T09:00:00", "2027-03-17T09:00:00", "2027-03-24T09:00:00"]);
  });

  it("shows the same dates as we do", () => {
    // The reader used here takes all days where BYSETPOS chooses among days of a month; the text is what the RFC says.
    const rules = [
      "FREQ=DAILY;INTERVAL=10",
      "FREQ=WEEKLY;BYDAY=MO,TH",
      "FREQ=MONTHLY;BYMONTHDAY=15",
      "FREQ=MONTHLY;BYDAY=2TU",
      "FREQ=YEARLY",
    ];
    fc.assert(
      fc.property(fc.constantFrom(...rules), fc.nat(700), fc.option(fc.nat(200)), (rule, after, cutAfter) => {
        const [start] = datesOfRule(
          readRule(rule),
          addDays("2026-01-31", after),
          addDays("2026-01-31", after),
          "2030-01-01",
          1,
        );
        const until = cutAfter === null ? null : addDays(start!, cutAfter);
        const text = repeatCalendar({ ...about, series: [{ ...series, rule, start: start!, until }] }, "Marrowick");
        const last = addDays(start!, 500);
        const ours = datesOfRule(readRule(rule), start!, start!, until !== null && until < last ? until : last);
        expect(shownBy(text, last)).toEqual(ours.map((date) => `${date}T09:00:00`));
      }),
      { numRuns: 60 },
    );
  });
});
