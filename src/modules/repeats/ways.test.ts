import { addDays, weekdayOf } from "@/core/time/dates";
import type { Actor } from "@/core/people/permissions";
import { sealedToken } from "@/kernel/links";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { recordTimeOff, removeTimeOff } from "@/modules/team/operations/absences";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { runDue } from "@/worker/loop";
import { office, one, saidOf, visitor, worldWithPost } from "@demo/small-world";
import { answerAsked, bookAgain, bookAskedByLink } from "./operations/asks";
import { changeRepeat } from "./operations/changes";
import { setRepeatPrice, setRepeatWays } from "./operations/ways";
import { moveRepeatVisit } from "./operations/move-repeat-visit";
import { lookForRoom, makeRepeat, promiseDate } from "./operations/repeats";
import { setAgain } from "./operations/set-again";
import { askOffers } from "./views/ask";
import { repeatView } from "./views/repeat";

const ways = {
  comes: "set" as "set" | "flexible" | "ask",
  leewayDays: null,
  counted: "calendar" as "calendar" | "done",
  promiseDays: null as number | null,
  asks: "customer" as "customer" | "office",
};

/** Somebody who comes back by a rule from Wednesday 10 March 2027 on. */
async function world(rule: string, more: Partial<typeof ways> = {}) {
  const small = worldWithPost();
  const { visitId } = small.booked();
  const { repeatId } = mustPerform(small.hogar, makeRepeat, { visitId, rule }, office);
  if (Object.keys(more).length) mustPerform(small.hogar, setRepeatWays, { repeatId, ...ways, ...more }, office);
  const settle = async () => {
    for (let i = 0; i < 3; i++) await runDue(small.hogar);
  };
  await settle();
  return {
    ...small,
    repeatId,
    visitId,
    settle,
    visits: () =>
      small.hogar.store
        .sql<{ id: number; on: string; date: string; state: string; placed: number }>(
          `SELECT id, repeat_date AS "on", date, state, (SELECT count(*) FROM placements WHERE visit_id = visits.id) AS placed
            FROM visits WHERE repeat_id = ? ORDER BY date`,
        )
        .all(repeatId),
    /** The morning of a day, with all that is due by then. */
    morningOf: async (date: string) => {
      small.at(date, 545);
      await settle();
    },
    done: (id: number, as: Actor = office) => {
      for (const to of ["on the way", "on site", "done"] as const)
        mustPerform(small.hogar, advanceVisit, { visitId: id, to }, as);
    },
    askToken: () => {
      const { id } = one<{ id: number }>(small.hogar, "SELECT id FROM repeat_asks ORDER BY id DESC LIMIT 1");
      return sealedToken(small.hogar, { kind: "again", id });
    },
    ask: () =>
      one<{ state: string; times: number }>(
        small.hogar,
        "SELECT state, times FROM repeat_asks ORDER BY id DESC LIMIT 1",
      ),
  };
}

describe("a flexible repeat", () => {
  it("stands near its dates, on days of its week on which somebody comes, and stays where it has found room", async () => {
    const w = await world("FREQ=WEEKLY;INTERVAL=2", { comes: "flexible" });
    const ahead = w.visits().filter((v) => v.state === "forecast");
    const monday = (date: string) => addDays(date, -weekdayOf(date));
    expect(ahead.every((v) => v.placed === 1 && monday(v.date) === monday(v.on) && weekdayOf(v.date) < 5)).toBe(true);
    await w.settle();
    expect(w.visits().filter((v) => v.state === "forecast")).toEqual(ahead);
  });
});

describe("a repeat that is counted from the last visit", () => {
  it("moves along with the visit that was done, and promises one at a time", async () => {
    const w = await world("FREQ=WEEKLY", { counted: "done" });
    expect(w.visits().filter((v) => v.state === "promised").length).toBe(1);
    w.at("2027-03-10", 545);
    w.done(w.visitId);
    await w.settle();
    expect(w.visits().slice(0, 3)).toMatchObject([
      { date: "2027-03-10", state: "done" },
      { date: "2027-03-17", state: "promised" },
      { date: "2027-03-24", state: "forecast" },
    ]);
    const [, next] = w.visits();
    const technicianIds = [w.technicians[0]!];
    mustPerform(
      w.hogar,
      moveRepeatVisit,
      { visitId: next!.id, technicianIds, date: "2027-03-19", fromMinute: 540, toMinute: 660, which: "this" },
      office,
    );
    await w.settle();
    expect(w.visits().slice(1, 3)).toMatchObject([
      { date: "2027-03-19", state: "promised" },
      { date: "2027-03-26", state: "forecast" },
    ]);
  });

  it("cannot be counted by weekdays", async () => {
    const w = await world("FREQ=WEEKLY;BYDAY=WE");
    const said = perform(w.hogar, setRepeatWays, { repeatId: w.repeatId, ...ways, counted: "done" }, office);
    expect(saidOf(said)).toContain("says only how often");
  });
});

describe("a repeat that asks first", () => {
  const quarterly = () => world("FREQ=MONTHLY;INTERVAL=3", { comes: "ask" });
  const asked = (w: Awaited<ReturnType<typeof quarterly>>) =>
    w.sent.filter(({ subject }) => subject.startsWith("Time for your next visit?"));

  it("asks four weeks before, once more after a week, then leaves it to a person; nothing is promised by itself", async () => {
    const w = await quarterly();
    await w.morningOf("2027-05-12");
    expect(asked(w)).toHaveLength(0);
    await w.morningOf("2027-05-13");
    expect(asked(w)).toHaveLength(1);
    expect(asked(w)[0]!.body).toContain("/again/");
    await w.morningOf("2027-05-20");
    await w.settle();
    expect([asked(w).length, w.ask()]).toEqual([2, { state: "asked", times: 2 }]);
    await w.morningOf("2027-05-28");
    expect([asked(w).length, w.ask()]).toEqual([2, { state: "for us", times: 2 }]);
    // The 10th is a holiday, so that it stood on the Monday after it.
    await w.morningOf("2027-06-15");
    expect(w.visits().filter((v) => v.on === "2027-06-10")).toEqual([]);
  });

  it("is booked by the link in a window that can be kept, once, however often it is pressed", async () => {
    const w = await quarterly();
    await w.morningOf("2027-05-13");
    const token = w.askToken();
    const offers = look(w.hogar, askOffers, { token }, visitor);
    if (!offers.ok) throw new Error(offers.problem.sentence);
    const { date, from, to } = offers.value.find((offer) => offer.date > "2027-06-10")!;
    const book = () => mustPerform(w.hogar, bookAskedByLink, { token, window: { date, from, to } }, visitor);
    expect(book()).toEqual(book());
    await w.settle();
    expect(w.visits().filter((v) => v.on === "2027-06-10")).toMatchObject([{ date, state: "promised", placed: 1 }]);
    expect(w.sent.filter(({ subject }) => subject.startsWith("Booked:")).length).toBe(2);
    expect(w.ask().state).toBe("booked");
  });

  it("is booked around its date, and on no other day that the link might name", async () => {
    const w = await quarterly();
    await w.morningOf("2027-05-13");
    const from = Date.parse("2027-09-15T08:00:00Z") / 60_000;
    const window = { date: "2027-09-15", from, to: from + 120 };
    expect(saidOf(perform(w.hogar, bookAskedByLink, { token: w.askToken(), window }, visitor))).toContain("faster");
  });

  it("is left out where the customer says not this time, and comes again the next time", async () => {
    const w = await quarterly();
    await w.morningOf("2027-05-13");
    mustPerform(w.hogar, answerAsked, { token: w.askToken(), answer: "not this time", words: "away" }, visitor);
    await w.morningOf("2027-06-11");
    expect([w.ask().state, asked(w).length]).toEqual(["declined", 1]);
    await w.morningOf("2027-08-13");
    expect(asked(w)).toHaveLength(2);
  });

  it("waits for a person who phones, where the office asks; what was spoken about is booked", async () => {
    const w = await world("FREQ=MONTHLY;INTERVAL=3", { comes: "ask", asks: "office" });
    await w.morningOf("2027-05-13");
    expect([asked(w).length, w.ask()]).toEqual([0, { state: "for us", times: 0 }]);
    const { date, from, to } = { date: "2027-06-09", from: 0, to: 0 };
    const at = (minute: number) => Date.parse(`${date}T00:00:00Z`) / 60_000 - 60 + minute;
    const window = { date, from: from + at(540), to: to + at(660) };
    mustPerform(w.hogar, bookAgain, { repeatId: w.repeatId, date: "2027-06-10", window }, office);
    expect(w.visits().filter((v) => v.on === "2027-06-10")).toMatchObject([{ date, state: "promised" }]);
  });
});

describe("a job that is done once", () => {
  it("brings one date about which its customer is asked, in so many months, and only once it is done", async () => {
    const w = worldWithPost();
    const { visitId } = w.booked();
    mustPerform(w.hogar, setAgain, { visitId, months: 12 }, office);
    const repeats = () =>
      w.hogar.store.sql("SELECT comes, rule, start_date, state FROM repeats WHERE after_visit_id = ?").all(visitId);
    expect(repeats()).toEqual([]);
    w.at("2027-03-10", 545);
    for (const to of ["on the way", "on site", "done"] as const)
      for (const twice of [1, 2]) mustPerform(w.hogar, advanceVisit, { visitId, to }, twice === 1 ? office : office);
    const again = { comes: "ask", rule: "FREQ=DAILY;COUNT=1", start_date: "2028-03-10", state: "active" };
    expect(repeats()).toEqual([again]);
    mustPerform(w.hogar, setAgain, { visitId, months: 6 }, office);
    expect(repeats()).toEqual([{ ...again, start_date: "2027-09-10" }]);
    mustPerform(w.hogar, setAgain, { visitId, months: null }, office);
    expect(repeats()).toMatchObject([{ state: "ended" }]);
  });
});

describe("moving a visit of a repeat by hand", () => {
  const place = (w: Awaited<ReturnType<typeof world>>, date: string) => ({
    technicianIds: [w.technicians[1]!],
    date,
    fromMinute: 780,
    toMinute: 900,
  });

  it("moves one date alone: it stays there, whatever is laid out anew", async () => {
    const w = await world("FREQ=WEEKLY;INTERVAL=2");
    const { id } = w.visits().find((v) => v.on === "2027-04-07")!;
    mustPerform(w.hogar, moveRepeatVisit, { visitId: id, ...place(w, "2027-04-09"), which: "this" }, office);
    await w.settle();
    expect(w.visits().slice(2, 4)).toMatchObject([{ date: "2027-04-09" }, { date: "2027-04-21" }]);
  });

  it("moves it with all that come after it; what lies before stays", async () => {
    const w = await world("FREQ=WEEKLY;INTERVAL=2");
    const { id } = w.visits().find((v) => v.on === "2027-04-07")!;
    mustPerform(w.hogar, moveRepeatVisit, { visitId: id, ...place(w, "2027-04-09"), which: "later" }, office);
    await w.settle();
    expect(w.visits().slice(0, 5)).toMatchObject([
      { date: "2027-03-10", state: "promised" },
      { date: "2027-03-24" },
      { id, on: "2027-04-09", date: "2027-04-09" },
      { date: "2027-04-23" },
      { date: "2027-05-07" },
    ]);
  });
});

describe("moving all that nobody was promised", () => {
  it("begins with the first of them; what was promised stays where it is", async () => {
    const w = await world("FREQ=WEEKLY;INTERVAL=2");
    const { id } = w.visits().find((v) => v.on === "2027-05-05")!;
    const place = { technicianIds: [w.technicians[0]!], date: "2027-05-06", fromMinute: 540, toMinute: 660 };
    mustPerform(w.hogar, moveRepeatVisit, { visitId: id, ...place, which: "all" }, office);
    await w.settle();
    expect(w.visits().slice(0, 6)).toMatchObject([
      { date: "2027-03-10", state: "promised" },
      { date: "2027-03-25" },
      { date: "2027-04-08" },
      { date: "2027-04-22" },
      { id, date: "2027-05-06" },
      { date: "2027-05-20" },
    ]);
  });

  it("is refused where it cannot be told which day is meant", async () => {
    const w = await world("FREQ=MONTHLY;BYDAY=2WE");
    const { id } = w.visits().find((v) => v.on > "2027-05-01")!;
    const place = { technicianIds: [w.technicians[0]!], date: "2027-05-21", fromMinute: 540, toMinute: 660 };
    const said = perform(w.hogar, moveRepeatVisit, { visitId: id, ...place, which: "all" }, office);
    expect(saidOf(said)).toBeTruthy();
  });
});

describe("a date whose day is full", () => {
  const fill = (w: Awaited<ReturnType<typeof world>>, date: string) => {
    for (const technicianId of w.technicians)
      mustPerform(
        w.hogar,
        recordTimeOff,
        { technicianId, firstDate: date, lastDate: date, reason: "Course", fromMinute: 480, toMinute: 720 },
        office,
      );
  };

  it("moves to the nearest day in its window, keeps its place in the rule, and stays there", async () => {
    const w = await world("FREQ=WEEKLY;INTERVAL=2");
    fill(w, "2027-04-07");
    w.at("2027-03-09", 600);
    await w.settle();
    const dated = () => w.visits().find((v) => v.on === "2027-04-07");
    expect(dated()).toMatchObject({ date: "2027-04-08", placed: 1 });
    await w.settle();
    expect(dated()).toMatchObject({ date: "2027-04-08", placed: 1 });
  });

  it("waits for a person where that was agreed", async () => {
    const w = await world("FREQ=WEEKLY;INTERVAL=2");
    const terms = { fromMinute: 540, toMinute: 660, technicianId: null, onClosed: "ask" as const };
    mustPerform(
      w.hogar,
      changeRepeat,
      { repeatId: w.repeatId, from: "2027-03-24", rule: "FREQ=WEEKLY;INTERVAL=2", ...terms },
      office,
    );
    fill(w, "2027-04-07");
    w.at("2027-03-09", 600);
    await w.settle();
    expect(w.visits().find((v) => v.on === "2027-04-07")).toMatchObject({ date: "2027-04-07", placed: 0 });
  });
});

describe("why a date finds no room", () => {
  const room = (w: Awaited<ReturnType<typeof world>>, on: string) => {
    const seen = look(w.hogar, repeatView, { repeatId: w.repeatId }, office);
    return seen.ok ? seen.value.coming.find(({ date }) => date === on)?.room : null;
  };
  const fullDay = (w: Awaited<ReturnType<typeof world>>, date: string) =>
    w.technicians.map(
      (technicianId) =>
        mustPerform(w.hogar, recordTimeOff, { technicianId, firstDate: date, lastDate: date, reason: "Course" }, office)
          .id,
    );

  it("is said as it is now; room that there is by now can be taken at once", async () => {
    const w = await world("FREQ=WEEKLY;INTERVAL=2");
    const terms = { fromMinute: 540, toMinute: 660, technicianId: null, onClosed: "ask" as const };
    const from = "2027-03-24";
    mustPerform(
      w.hogar,
      changeRepeat,
      { repeatId: w.repeatId, from, rule: "FREQ=WEEKLY;INTERVAL=2", ...terms },
      office,
    );
    const off = fullDay(w, "2027-04-07");
    w.at("2027-03-09", 600);
    await w.settle();
    expect(room(w, "2027-04-07")).toEqual({ why: expect.stringMatching(/off/i) });
    for (const id of off) mustPerform(w.hogar, removeTimeOff, { id: id! }, office);
    expect(room(w, "2027-04-07")).toEqual({ roomOn: "2027-04-07" });
    mustPerform(w.hogar, lookForRoom, { repeatId: w.repeatId }, office);
    expect(w.visits().find((v) => v.on === "2027-04-07")).toMatchObject({ placed: 1 });
  });
});

describe("a customer who has thought better of it", () => {
  it("is called after all, though the date had been left out", async () => {
    const w = await world("FREQ=MONTHLY;INTERVAL=3", { comes: "ask" });
    await w.morningOf("2027-05-13");
    const token = w.askToken();
    mustPerform(w.hogar, answerAsked, { token, answer: "not this time", words: "" }, visitor);
    mustPerform(w.hogar, answerAsked, { token, answer: "call me", words: "Rather yes." }, visitor);
    await w.settle();
    expect(w.ask()).toMatchObject({ state: "for us" });
    expect(w.visits().some((v) => v.on === "2027-06-10")).toBe(true);
  });
});

describe("the price of a repeat", () => {
  it("is what was agreed; another one is told in time, and counts from its day on", async () => {
    const w = await world("FREQ=WEEKLY;INTERVAL=2");
    const review = { date: "2027-04-15", byBp: 500, noticeDays: 10 };
    mustPerform(
      w.hogar,
      setRepeatPrice,
      { repeatId: w.repeatId, per: "visit", minor: 7000, visits: 1, review },
      office,
    );
    await w.morningOf("2027-04-04");
    const told = () => w.sent.filter(({ subject }) => subject.startsWith("From 15 April 2027"));
    expect(told()).toHaveLength(0);
    await w.morningOf("2027-04-05");
    expect(told()).toMatchObject([{ subject: "From 15 April 2027: Chimney sweep, €73.50 a visit" }]);
    await w.morningOf("2027-05-07");
    expect(
      w.hogar.store
        .sql<{ total: number }>(
          `SELECT j.total_minor AS total FROM visits v JOIN jobs j ON j.id = v.job_id
            WHERE v.repeat_id = ? AND v.date >= '2027-04-07' ORDER BY v.date`,
        )
        .all(w.repeatId)
        .map(({ total }) => total),
    ).toEqual([7000, 7350]);
  });

  it("is paid by the month or the year: its visits cost nothing and bring no invoice", async () => {
    const w = await world("FREQ=WEEKLY;INTERVAL=2");
    mustPerform(
      w.hogar,
      setRepeatPrice,
      { repeatId: w.repeatId, per: "month", minor: 6000, visits: 2, review: null },
      office,
    );
    mustPerform(w.hogar, promiseDate, { repeatId: w.repeatId, date: "2027-04-07" }, office);
    const later = w.visits().find((v) => v.on === "2027-04-07")!;
    await w.morningOf("2027-04-07");
    w.done(later.id);
    expect(
      one(
        w.hogar,
        `SELECT j.state, j.total_minor AS total, (SELECT count(*) FROM invoices WHERE job_id = j.id) AS invoices
          FROM visits v JOIN jobs j ON j.id = v.job_id WHERE v.id = ?`,
        later.id,
      ),
    ).toEqual({ state: "done", total: 0, invoices: 0 });
  });
});
