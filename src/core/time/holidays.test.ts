import { readHolidays } from "./holidays";

const file = (...events: string[][]) =>
  [
    "BEGIN:VCALENDAR",
    "VERSION:2.0",
    "PRODID:-//Marrowick//Holidays//EN",
    ...events.flatMap((lines) => ["BEGIN:VEVENT", ...lines, "END:VEVENT"]),
    "END:VCALENDAR",
  ].join("\r\n");

describe("a calendar file of holidays", () => {
  it("gives whole days with the day after as their end, ranges and yearly ones", () => {
    const text = file(
      ["UID:2", "SUMMARY:Harbour fair", "DTSTART;VALUE=DATE:20270610", "DTEND;VALUE=DATE:20270613"],
      ["UID:1", "SUMMARY:New Year", "DTSTART;VALUE=DATE:20270101", "DTEND;VALUE=DATE:20270102", "RRULE:FREQ=YEARLY"],
      ["UID:3", "SUMMARY:Lantern day", "DTSTART;VALUE=DATE:20271102"],
    );
    expect(readHolidays(text)).toEqual([
      { name: "New Year", first: "2027-01-01", last: "2027-01-01", yearly: true, spans: [] },
      { name: "Harbour fair", first: "2027-06-10", last: "2027-06-12", yearly: false, spans: [] },
      { name: "Lantern day", first: "2027-11-02", last: "2027-11-02", yearly: false, spans: [] },
    ]);
  });

  it("falls by its rule in every year: the last Monday of August, but not where it is left out", () => {
    const rule = "RRULE:FREQ=YEARLY;BYMONTH=8;BYDAY=-1MO;COUNT=4";
    const days = readHolidays(
      file(["UID:1", "SUMMARY:Bank day", "DTSTART;VALUE=DATE:20270830", rule, "EXDATE;VALUE=DATE:20280828"]),
    );
    expect(days.map(({ first, yearly }) => [first, yearly])).toEqual([
      ["2027-08-30", false],
      ["2029-08-27", false],
      ["2030-08-26", false],
    ]);
  });

  it("leaves appointments with hours out, and says so of what is no calendar", () => {
    expect(
      readHolidays(file(["UID:1", "SUMMARY:Dentist", "DTSTART:20270311T090000Z", "DTEND:20270311T100000Z"])),
    ).toEqual([]);
    expect(() => readHolidays("name;date\nNew Year;2027-01-01")).toThrow(/not a calendar file/);
  });
});
