import { addDays, type LocalDate } from "@/core/time/dates";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { runDue } from "@/worker/loop";
import { office, saidOf, smallWorld } from "@demo/small-world";
import { cancelVisit } from "@/modules/visits/operations/cancel-visit";
import { changeRepeat, undoRepeatChange } from "./operations/changes";
import { moveRepeatVisit } from "./operations/move-repeat-visit";
import { makeRepeat, promiseDate } from "./operations/repeats";
import { changeAhead } from "./views/change-ahead";

/** Somebody who comes back every week, on Wednesdays in the morning; the first three visits are promised. */
async function world(rule = "FREQ=WEEKLY") {
  const small = smallWorld();
  const { visitId } = small.booked();
  const { repeatId } = mustPerform(small.hogar, makeRepeat, { visitId, rule }, office);
  for (let i = 0; i < 3; i++) await runDue(small.hogar);
  const { sql } = small.hogar.store;
  const visits = () =>
    sql<{ id: number; on: LocalDate; date: LocalDate; state: string; from: number; technicians: string }>(
      `SELECT id, repeat_date AS "on", date, state, window_from AS "from",
          (SELECT group_concat(technician_id) FROM placements WHERE visit_id = visits.id) AS technicians
        FROM visits WHERE repeat_id = ? ORDER BY date, id`,
    ).all(repeatId);
  for (const { on } of visits().slice(1, 3))
    if (visits().find((v) => v.on === on)!.state === "forecast")
      mustPerform(small.hogar, promiseDate, { repeatId, date: on }, office);
  await runDue(small.hogar);
  const told = () =>
    sql<{ state: string; visit_id: number }>(
      "SELECT state, visit_id FROM messages WHERE kind = 'moved' AND channel = 'mail' AND state <> 'dropped' ORDER BY id",
    ).all();
  return {
    ...small,
    repeatId,
    visits,
    told,
    settle: async () => {
      small.later(1);
      for (let i = 0; i < 4; i++) await runDue(small.hogar);
    },
    place: (date: LocalDate) => ({ technicianIds: [small.technicians[0]!], date, fromMinute: 540, toMinute: 660 }),
    terms: {
      repeatId,
      from: "2027-03-10",
      rule: "FREQ=WEEKLY;BYDAY=FR",
      fromMinute: 540,
      toMinute: 660,
      technicianId: null,
      onClosed: "nearest" as const,
    },
  };
}
type World = Awaited<ReturnType<typeof world>>;

const days = (w: World, count: number) =>
  w
    .visits()
    .slice(0, count)
    .map(({ date }) => date);
const everyWeek = (from: LocalDate, count: number) => Array.from({ length: count }, (_, i) => addDays(from, 7 * i));

describe("moving a promised visit with those after it", () => {
  it("takes along what else is promised, tells of each once, and visits nobody twice in a week", async () => {
    const w = await world();
    expect(days(w, 5)).toEqual(everyWeek("2027-03-10", 5));
    const first = w.visits()[0]!;
    mustPerform(w.hogar, moveRepeatVisit, { visitId: first.id, ...w.place("2027-03-12"), which: "later" }, office);
    await w.settle();
    expect(days(w, 6)).toEqual(everyWeek("2027-03-12", 6));
    expect(
      w
        .told()
        .map((m) => m.visit_id)
        .sort(),
    ).toEqual(
      w
        .visits()
        .slice(0, 3)
        .map(({ id }) => id)
        .sort(),
    );
  });

  it("is taken back to where every visit stood, with whom and when; whoever was told is told once more", async () => {
    const w = await world();
    const before = w.visits();
    const first = before[0]!;
    mustPerform(w.hogar, moveRepeatVisit, { visitId: first.id, ...w.place("2027-03-12"), which: "later" }, office);
    await w.settle();
    w.at("2027-03-09", 660);
    mustPerform(w.hogar, undoRepeatChange, { repeatId: w.repeatId }, office);
    await w.settle();
    expect(w.visits().slice(0, before.length)).toEqual(before);
    // A stranger gets six messages a day at the most.
    expect(w.told().slice(3).length).toBeGreaterThan(1);
  });

  it("is taken back without a word where nobody has been told yet", async () => {
    const w = await world();
    const before = w.visits();
    mustPerform(w.hogar, moveRepeatVisit, { visitId: before[0]!.id, ...w.place("2027-03-12"), which: "later" }, office);
    w.at("2027-03-09", 660);
    mustPerform(w.hogar, undoRepeatChange, { repeatId: w.repeatId }, office);
    await w.settle();
    expect(w.visits().slice(0, before.length)).toEqual(before);
    expect(w.told()).toEqual([]);
  });

  it("asks which are meant where a visit moves onto another day of its week", async () => {
    const w = await world("FREQ=WEEKLY;BYDAY=WE,FR");
    const visit = w.visits().find((v) => v.state === "forecast" && v.on === "2027-04-07")!;
    const move = { visitId: visit.id, ...w.place("2027-04-08"), which: "later" as const };
    expect(saidOf(perform(w.hogar, moveRepeatVisit, move, office))).toContain("Say which move along");
    mustPerform(w.hogar, moveRepeatVisit, { ...move, along: "its day" }, office);
    await w.settle();
    expect(
      w
        .visits()
        .filter(({ date }) => date > "2027-04-05")
        .slice(0, 4)
        .map(({ date }) => date),
    ).toEqual(["2027-04-08", "2027-04-09", "2027-04-15", "2027-04-16"]);
  });
});

describe("other terms from a day on", () => {
  it("begin after what is promised, where that stays", async () => {
    const w = await world();
    mustPerform(w.hogar, changeRepeat, { ...w.terms, promised: "stays" }, office);
    await w.settle();
    expect(days(w, 6)).toEqual([...everyWeek("2027-03-10", 3), ...everyWeek("2027-04-02", 3)]);
    expect(w.told()).toEqual([]);
  });

  it("take along what is promised, where that moves; all of it can be taken back", async () => {
    const w = await world();
    const before = w.visits();
    mustPerform(w.hogar, changeRepeat, { ...w.terms, promised: "moves" }, office);
    await w.settle();
    expect(days(w, 6)).toEqual(everyWeek("2027-03-12", 6));
    expect(w.told()).toHaveLength(3);
    w.at("2027-03-09", 660);
    mustPerform(w.hogar, undoRepeatChange, { repeatId: w.repeatId }, office);
    await w.settle();
    expect(w.visits().slice(0, before.length)).toEqual(before);
  });
});

describe("a change that is taken back when later dates have been promised by it", () => {
  it("keeps those promises in place of the nearest dates, and visits nobody twice", async () => {
    const w = await world();
    mustPerform(w.hogar, changeRepeat, { ...w.terms, promised: "moves" }, office);
    await w.settle();
    for (const date of ["2027-04-02", "2027-04-09"])
      mustPerform(w.hogar, promiseDate, { repeatId: w.repeatId, date }, office);
    const promised = w.visits().filter(({ date }) => date === "2027-04-02" || date === "2027-04-09");
    w.at("2027-03-09", 660);
    mustPerform(w.hogar, undoRepeatChange, { repeatId: w.repeatId }, office);
    await w.settle();
    expect(days(w, 7)).toEqual([
      ...everyWeek("2027-03-10", 3),
      "2027-04-02",
      "2027-04-09",
      ...everyWeek("2027-04-14", 2),
    ]);
    for (const { id, ...stood } of promised)
      expect(w.visits().find((v) => v.id === id)).toMatchObject({ date: stood.date, state: "promised" });
  });

  it("lays no date out again whose visit was called off meanwhile", async () => {
    const w = await world();
    mustPerform(w.hogar, changeRepeat, { ...w.terms, promised: "moves" }, office);
    await w.settle();
    mustPerform(w.hogar, promiseDate, { repeatId: w.repeatId, date: "2027-04-02" }, office);
    const off = w.visits().find(({ date }) => date === "2027-04-02")!;
    mustPerform(w.hogar, cancelVisit, { visitId: off.id, refundDeposit: false }, office);
    w.at("2027-03-09", 660);
    mustPerform(w.hogar, undoRepeatChange, { repeatId: w.repeatId }, office);
    await w.settle();
    expect(
      w
        .visits()
        .filter(({ state }) => state !== "cancelled")
        .map(({ date }) => date)
        .slice(0, 5),
    ).toEqual([...everyWeek("2027-03-10", 3), ...everyWeek("2027-04-07", 2)]);
  });
});

describe("a change that is looked at before it is made", () => {
  it("says whom it moves, where one is visited twice in a turn or not at all, and changes nothing", async () => {
    const w = await world();
    const before = w.visits();
    const ahead = look(w.hogar, changeAhead, { change: { ...w.terms, promised: "moves" } }, office);
    expect(ahead).toMatchObject({
      ok: true,
      value: { problem: null, odd: [], moved: [{ from: "2027-03-10", to: "2027-03-12" }, {}, {}] },
    });
    const once = { visitId: before[3]!.id, ...w.place("2027-04-05"), which: "this" as const };
    expect(look(w.hogar, changeAhead, { move: once }, office)).toMatchObject({
      value: {
        odd: [
          { kind: "none", from: "2027-03-24", to: "2027-04-05" },
          { kind: "twice", from: "2027-04-05", to: "2027-04-07" },
        ],
      },
    });
    expect(w.visits()).toEqual(before);
  });

  it("says which visits can be meant, and what stands against it", async () => {
    const w = await world("FREQ=WEEKLY;BYDAY=WE,FR");
    const visit = w.visits().find((v) => v.on === "2027-04-07")!;
    const move = { visitId: visit.id, ...w.place("2027-04-09"), which: "later" as const };
    expect(look(w.hogar, changeAhead, { move }, office)).toMatchObject({ value: { ways: ["every day"] } });
    const gone = { ...move, ...w.place("2027-03-01") };
    expect(look(w.hogar, changeAhead, { move: gone }, office)).toMatchObject({
      value: { problem: expect.stringContaining("has passed") },
    });
  });
});
