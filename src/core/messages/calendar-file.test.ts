import ICAL from "ical.js";
import { epochMinute } from "../time/local";
import { calendarFile } from "./calendar-file";

it("puts a window into a calendar, whatever its words, in UTC", () => {
  const from = epochMinute("2027-07-01", 540, "Europe/Lisbon");
  const entry = {
    uid: "visit-7@marrowick.example",
    title: "Chimney sweep; one flue",
    from,
    to: from + 120,
    place: "12 Alder Road, Northfield",
    words: "Side gate,\ncode 4471",
    sequence: 2,
    cancelled: false,
    now: from - 5000,
  };
  const text = calendarFile([entry], "Marrowick Hearth & Flue");
  expect(text.split("\r\n").every((line) => line.length <= 75)).toBe(true);
  const event = new ICAL.Event(new ICAL.Component(ICAL.parse(text) as unknown[]).getFirstSubcomponent("vevent")!);
  expect([
    event.uid,
    event.summary,
    event.location,
    event.description,
    event.sequence,
    event.startDate.toString(),
    event.endDate.toString(),
  ]).toEqual([entry.uid, entry.title, entry.place, entry.words, 2, "2027-07-01T08:00:00Z", "2027-07-01T10:00:00Z"]);
});
