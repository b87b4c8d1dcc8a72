import { addDays } from "@/core/time/dates";
import { localOf } from "@/core/time/local";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { recordTimeOff, removeTimeOff } from "@/modules/team/operations/absences";
import { runDue } from "@/worker/loop";
import { office, one, saidOf, smallWorld } from "@demo/small-world";
import fc from "fast-check";
import { agreeRepeatDate, changeRepeat, endPause, pauseRepeat, undoRepeatChange } from "./operations/changes";
import { moveRepeatVisit } from "./operations/move-repeat-visit";
import { makeRepeat } from "./operations/repeats";
import { setRepeatWays } from "./operations/ways";
import { repeatView } from "./views/repeat";

const zone = "Europe/Lisbon";

/** Somebody who comes back every second Wednesday from 10 March on, in the morning. */
async function world(rule = "FREQ=WEEKLY;INTERVAL=2") {
  const small = smallWorld();
  const { visitId } = small.booked();
  const { repeatId } = mustPerform(small.hogar, makeRepeat, { visitId, rule }, office);
  await runDue(small.hogar);
  await runDue(small.hogar);
  return { ...small, repeatId, visitId };
}
type World = Awaited<ReturnType<typeof world>>;

const visits = ({ hogar, repeatId }: Pick<World, "hogar" | "repeatId">) =>
  hogar.store
    .sql<{ id: number; on: string; date: string; state: string; from: number; placed: number }>(
      `SELECT id, repeat_date AS "on", date, state, window_from AS "from",
          (SELECT count(*) FROM placements WHERE visit_id = visits.id) AS placed
        FROM visits WHERE repeat_id = ? ORDER BY repeat_date`,
    )
    .all(repeatId)
    .map(({ from, ...visit }) => ({ ...visit, at: localOf(from, zone).minute }));
const withoutIds = (w: World) => visits(w).map(({ on, date, state, at, placed }) => ({ on, date, state, at, placed }));
const dates = (w: World) => visits(w).map((v) => v.date);
const terms = {
  from: "2027-04-08",
  rule: "FREQ=WEEKLY;INTERVAL=2",
  fromMinute: 780,
  toMinute: 900,
  technicianId: null,
  onClosed: "nearest" as const,
};

describe("a repeat", () => {
  it("lies ahead for a year beyond what is booked, a dozen dates at a time", async () => {
    const w = await world();
    for (let i = 0; i < 3; i++) await runDue(w.hogar);
    expect(dates(w).slice(0, 3)).toEqual(["2027-03-10", "2027-03-24", "2027-04-07"]);
    expect([dates(w).length, dates(w).at(-1)! > "2028-03-09"]).toEqual([31, true]);
    expect(visits(w).every((v) => v.placed === 1)).toBe(true);
  });

  it("begins on a date of its rule, and says so where it does not", () => {
    const small = smallWorld();
    const { visitId } = small.booked();
    const said = (rule: string) => saidOf(perform(small.hogar, makeRepeat, { visitId, rule }, office));
    expect(said("FREQ=WEEKLY;BYDAY=TU")).toContain(
      "Wednesday 10 March, on which it begins, is not one of these dates.",
    );
    expect(said("FREQ=SOMETIMES")).toBe("A rule begins with FREQ=DAILY, WEEKLY, MONTHLY or YEARLY.");
    expect(said("FREQ=MONTHLY;BYDAY=2WE")).toBe("done");
  });

  it("leaves one date out, moves one, and takes that back", async () => {
    const w = await world();
    const agree = (more: object) =>
      mustPerform(w.hogar, agreeRepeatDate, { repeatId: w.repeatId, ...more } as never, office);
    agree({ date: "2027-04-07", skip: true });
    agree({ date: "2027-04-21", to: "2027-04-22", window: { fromMinute: 780, toMinute: 900 } });
    expect(visits(w).slice(1, 4)).toMatchObject([
      { on: "2027-03-24" },
      { on: "2027-04-21", date: "2027-04-22", at: 780, placed: 1 },
      { on: "2027-05-05" },
    ]);
    agree({ date: "2027-04-07" });
    agree({ date: "2027-04-21" });
    expect(visits(w).slice(2, 4)).toMatchObject([
      { date: "2027-04-07", at: 540, placed: 1 },
      { date: "2027-04-21", at: 540, placed: 1 },
    ]);
  });

  it("does not touch what is promised: that is moved on the board, where its customer is told", async () => {
    const w = await world();
    const said = perform(
      w.hogar,
      agreeRepeatDate,
      { repeatId: w.repeatId, date: visits(w)[0]!.on, skip: true },
      office,
    );
    expect(saidOf(said)).toContain("promised already");
    mustPerform(w.hogar, pauseRepeat, { repeatId: w.repeatId, first: "2027-03-10", last: "2027-04-10" }, office);
    expect(visits(w)[0]).toMatchObject({ date: "2027-03-10", state: "promised" });
  });

  it("pauses and goes on", async () => {
    const w = await world();
    const before = dates(w);
    const { pauseId } = mustPerform(
      w.hogar,
      pauseRepeat,
      { repeatId: w.repeatId, first: "2027-03-20", last: "2027-04-22" },
      office,
    );
    expect(dates(w).slice(0, 2)).toEqual(["2027-03-10", "2027-05-05"]);
    mustPerform(w.hogar, endPause, { repeatId: w.repeatId, pauseId }, office);
    for (let i = 0; i < 3; i++) await runDue(w.hogar);
    expect(dates(w).slice(0, before.length)).toEqual(before);
  });

  it("has other terms from a date on; what lies before keeps the old ones, and all of it can be taken back", async () => {
    const w = await world();
    const before = withoutIds(w);
    // The old terms end where the new ones are asked for, and not with their first date.
    mustPerform(
      w.hogar,
      changeRepeat,
      { repeatId: w.repeatId, ...terms, from: "2027-04-06", rule: "FREQ=WEEKLY;BYDAY=FR" },
      office,
    );
    expect(dates(w).slice(1, 3)).toEqual(["2027-03-24", "2027-04-09"]);
    mustPerform(w.hogar, undoRepeatChange, { repeatId: w.repeatId }, office);
    mustPerform(w.hogar, changeRepeat, { repeatId: w.repeatId, ...terms }, office);
    for (let i = 0; i < 3; i++) await runDue(w.hogar);
    expect(visits(w).slice(0, 5)).toMatchObject([
      { date: "2027-03-10", at: 540 },
      { date: "2027-03-24", at: 540 },
      { date: "2027-04-07", at: 540 },
      { date: "2027-04-08", at: 780 },
      { date: "2027-04-22", at: 780 },
    ]);
    expect(look(w.hogar, repeatView, { repeatId: w.repeatId }, office)).toMatchObject({
      value: {
        words: "every 2 weeks on Thursday",
        before: [{ words: "every 2 weeks on Wednesday", until: "2027-04-07" }],
      },
    });
    mustPerform(w.hogar, undoRepeatChange, { repeatId: w.repeatId }, office);
    for (let i = 0; i < 3; i++) await runDue(w.hogar);
    expect(withoutIds(w).slice(0, before.length)).toEqual(before);
  });

  it("moves from a closed day as was agreed", async () => {
    const w = await world("FREQ=DAILY;INTERVAL=18");
    // The 28th of March is a Sunday.
    expect(visits(w)[1]).toMatchObject({ on: "2027-03-28", date: "2027-03-29" });
    mustPerform(
      w.hogar,
      changeRepeat,
      { repeatId: w.repeatId, ...terms, from: "2027-03-28", rule: "FREQ=DAILY;INTERVAL=18", onClosed: "earlier" },
      office,
    );
    expect(visits(w)[1]).toMatchObject({ on: "2027-03-28", date: "2027-03-26" });
  });

  it("says what becomes of each date, and leads to its visit", async () => {
    const w = await world();
    mustPerform(w.hogar, agreeRepeatDate, { repeatId: w.repeatId, date: "2027-03-24", skip: true }, office);
    expect(look(w.hogar, repeatView, { repeatId: w.repeatId }, office)).toMatchObject({
      value: {
        words: "every 2 weeks on Wednesday",
        agreed: ["2027-03-24"],
        coming: [
          { date: "2027-03-10", state: "promised", visitId: w.visitId },
          { date: "2027-03-24", becomes: "skipped", day: null },
          { date: "2027-04-07", state: "forecast", technician: expect.any(String) },
          ...Array.from({ length: 28 }, () => ({})),
        ],
      },
    });
  });

  it("says why a date finds no room, and settles it when there is some again", async () => {
    const w = await world();
    const date = "2027-04-07";
    const off = w.technicians.map(
      (technicianId) =>
        mustPerform(
          w.hogar,
          recordTimeOff,
          { technicianId, firstDate: date, lastDate: date, reason: "training" },
          office,
        ).id,
    );
    mustPerform(
      w.hogar,
      agreeRepeatDate,
      { repeatId: w.repeatId, date, window: { fromMinute: 540, toMinute: 600 } },
      office,
    );
    const shown = () => {
      const view = look(w.hogar, repeatView, { repeatId: w.repeatId }, office);
      if (!view.ok) throw new Error(view.problem.sentence);
      return view.value.coming.find((one) => one.date === date)!;
    };
    expect(shown()).toMatchObject({ technician: null, room: { why: expect.stringContaining("Bram Okafor") } });
    for (const id of off) mustPerform(w.hogar, removeTimeOff, { id }, office);
    w.at("2027-03-09", 600);
    await runDue(w.hogar);
    expect(shown()).toMatchObject({ technician: expect.any(String), room: null });
  });

  it("never has two visits for one date, and never touches what is promised, whatever is agreed, moved and taken back, however it comes", async () => {
    const start = "2027-03-10";
    const day = fc.nat(120).map((n) => addDays(start, n));
    const acts = fc.array(
      fc.record({
        act: fc.constantFrom("skip", "move", "clear", "change", "undo", "pause", "grow", "by hand", "tomorrow"),
        at: day,
        to: day,
        which: fc.constantFrom("this" as const, "later" as const, "all" as const),
      }),
      { maxLength: 8 },
    );
    const kinds = fc.constantFrom(
      { comes: "set" as const, counted: "calendar" as const },
      { comes: "flexible" as const, counted: "calendar" as const },
      { comes: "set" as const, counted: "done" as const },
      { comes: "ask" as const, counted: "calendar" as const },
    );
    await fc.assert(
      fc.asyncProperty(kinds, acts, async (kind, steps) => {
        const w = await world("FREQ=WEEKLY");
        const { hogar, repeatId } = w;
        const ways = { repeatId, ...kind, leewayDays: null, promiseDays: null, asks: "customer" as const };
        mustPerform(hogar, setRepeatWays, ways, office);
        const promised = visits(w).filter((v) => v.state === "promised");
        let today = "2027-03-09";
        for (const { act, at, to, which } of steps) {
          if (act === "skip") perform(hogar, agreeRepeatDate, { repeatId, date: at, skip: true }, office);
          else if (act === "move") perform(hogar, agreeRepeatDate, { repeatId, date: at, to }, office);
          else if (act === "clear") perform(hogar, agreeRepeatDate, { repeatId, date: at }, office);
          else if (act === "change")
            perform(hogar, changeRepeat, { repeatId, ...terms, from: at, rule: "FREQ=DAILY;INTERVAL=10" }, office);
          else if (act === "undo") perform(hogar, undoRepeatChange, { repeatId }, office);
          else if (act === "pause") perform(hogar, pauseRepeat, { repeatId, first: at, last: addDays(at, 20) }, office);
          else if (act === "by hand") {
            const visit = visits(w).find((v) => v.state === "forecast" && v.date >= at);
            const place = { technicianIds: [w.technicians[0]!], date: to, fromMinute: 540, toMinute: 660 };
            if (visit) perform(hogar, moveRepeatVisit, { visitId: visit.id, ...place, which }, office);
          } else {
            if (act === "tomorrow") w.at((today = addDays(today, 1)), 420);
            await runDue(hogar);
          }
        }
        const now = visits(w);
        expect(new Set(now.map((v) => v.on)).size).toBe(now.length);
        for (const visit of promised) expect(now).toContainEqual(visit);
        expect(one(hogar, "SELECT count(*) AS n FROM failed_work")).toEqual({ n: 0 });
      }),
      {
        numRuns: 25,
        // Every ten days falls on Sundays, too: near them the week counts in which the date lies, not the day it moves to.
        examples: [
          [
            { comes: "flexible", counted: "calendar" },
            [
              { act: "change", at: "2027-03-18", to: start, which: "this" },
              { act: "grow", at: start, to: start, which: "this" },
            ],
          ],
        ],
      },
    );
  });
});
