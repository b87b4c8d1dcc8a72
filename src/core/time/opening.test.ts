import { isOpen, type Opening, openOn, type SpecialDay } from "./opening";

const day = (first: string, last: string, more: Partial<SpecialDay> = {}): SpecialDay => ({
  name: "special",
  first,
  last,
  yearly: false,
  spans: [],
  ...more,
});
const weekdays: Opening["hours"] = [0, 1, 2, 3, 4].flatMap((weekday) => [
  { weekday, opens: 480, closes: 720 },
  { weekday, opens: 780, closes: 1020 },
]);

describe("opening hours", () => {
  it("have several spans a day, and none where nothing is said of the weekday", () => {
    const opening = { hours: weekdays, special: [] };
    expect(openOn(opening, "2027-03-11").spans).toEqual([
      [480, 720],
      [780, 1020],
    ]);
    expect(isOpen(opening, "2027-03-13")).toBe(false);
  });

  it("are the whole day where none are given: technicians' hours say enough", () => {
    expect(openOn({ hours: [], special: [] }, "2027-03-14")).toEqual({ spans: [[0, 1440]], name: null });
  });

  it("give way to a special day, closed or with other hours", () => {
    const opening = {
      hours: weekdays,
      special: [
        day("2027-03-11", "2027-03-12", { name: "Harbour fair" }),
        day("2027-03-20", "2027-03-20", { spans: [[540, 720]] }),
      ],
    };
    expect(openOn(opening, "2027-03-12")).toEqual({ spans: [], name: "Harbour fair" });
    expect(openOn(opening, "2027-03-20").spans).toEqual([[540, 720]]);
  });

  it("come again every year, over the turn of the year too", () => {
    const opening = {
      hours: weekdays,
      special: [day("2026-12-24", "2027-01-02", { yearly: true }), day("2020-05-01", "2020-05-01", { yearly: true })],
    };
    expect(
      ["2027-12-23", "2027-12-24", "2028-12-31", "2030-01-02", "2030-01-03", "2031-05-01", "2031-05-02"].map(
        (date) => openOn(opening, date).name,
      ),
    ).toEqual([null, "special", "special", "special", null, "special", null]);
  });

  it("take the shorter of two across the turn of a month or a year, too", () => {
    const week = day("2027-12-29", "2028-01-04");
    const days = { ...day("2027-12-01", "2027-12-31"), name: "all of December" };
    expect(openOn({ hours: weekdays, special: [week, days] }, "2027-12-30").name).toBe("special");
  });

  it("take the shorter of two special days that overlap", () => {
    const opening = {
      hours: weekdays,
      special: [
        day("2027-08-09", "2027-08-09", { name: "open all the same", spans: [[540, 600]] }),
        day("2027-08-01", "2027-08-21", { name: "summer" }),
      ],
    };
    expect([openOn(opening, "2027-08-09").name, openOn(opening, "2027-08-10").name]).toEqual([
      "open all the same",
      "summer",
    ]);
  });
});
