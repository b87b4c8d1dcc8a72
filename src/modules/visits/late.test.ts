import { mustPerform, perform } from "@/kernel/operation";
import { office, one, smallWorld } from "@demo/small-world";
import { advanceVisit } from "./operations/advance-visit";

describe("a visit that is ticked later", () => {
  const lateVisit = () => {
    const w = smallWorld();
    const { visitId } = w.booked();
    const { date } = one<{ date: string }>(w.hogar, "SELECT date FROM visits WHERE id = ?", visitId);
    w.at("2027-03-16", 600);
    const endedOn = () =>
      one<{ day: string }>(
        w.hogar,
        "SELECT date(ended_at / 1000, 'unixepoch') AS day FROM visits WHERE id = ?",
        visitId,
      ).day;
    const took = () =>
      one<{ n: number }>(w.hogar, "SELECT leaves - arrives AS n FROM placements WHERE visit_id = ?", visitId).n;
    return { ...w, visitId, date, endedOn, took };
  };

  it("counts on its own day where nothing is said, and took as long as it was planned", () => {
    const w = lateVisit();
    for (const to of ["on site", "done"] as const)
      mustPerform(w.hogar, advanceVisit, { visitId: w.visitId, to }, office);
    expect([w.endedOn(), w.took()]).toEqual([w.date, 60]);
  });

  it("counts on the day that is said, which is neither before it nor still to come", () => {
    const w = lateVisit();
    mustPerform(w.hogar, advanceVisit, { visitId: w.visitId, to: "on site", on: "2027-03-12" }, office);
    const done = (on: string) => perform(w.hogar, advanceVisit, { visitId: w.visitId, to: "done", on }, office);
    expect([done("2027-03-01").ok, done("2027-03-17").ok, done("2027-03-12").ok]).toEqual([false, false, true]);
    expect(w.endedOn()).toBe("2027-03-12");
  });
});
