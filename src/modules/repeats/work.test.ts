import { justOne } from "@/core/catalogue/items";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { bookInOffice } from "@/modules/booking/operations/book-in-office";
import { saveBusiness } from "@/modules/business/operations/save-business";
import { saveJobPattern } from "@/modules/catalogue/operations/save-job-pattern";
import { fieldDay } from "@/modules/visits/views/field";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { saveSite } from "@/modules/customers/operations/sites";
import { recordKeptCard } from "@/modules/money/operations/cards";
import { personActor } from "@/core/people/permissions";
import { worker } from "@/kernel/scheduled";
import { runDue } from "@/worker/loop";
import { businessInput, office, one, saidOf, serviceInput, smallWorld } from "@demo/small-world";
import { agreeRepeat } from "./operations/agree-repeat";
import { agreeRepeatDate, changeRepeat, pauseRepeat } from "./operations/changes";
import { endRepeat, promiseDate } from "./operations/repeats";
import { setRepeatPrice, setRepeatWork } from "./operations/ways";
import { repeatView } from "./views/repeat";
import { repeats } from "./views/repeats";

/** A customer with two sites, patterns to choose from, and a way to agree a repeat with them. */
function world() {
  const small = smallWorld();
  const { hogar, services } = small;
  const { actor } = small.booked();
  const { customerId } = actor;
  const { site } = one<{ site: number }>(hogar, "SELECT id AS site FROM sites WHERE customer_id = ?", customerId);
  const pattern = (name: string, more: Partial<Parameters<typeof saved>[0]> = {}) => saved({ name, ...more });
  const saved = (typed: object) =>
    mustPerform(
      hogar,
      saveJobPattern,
      {
        id: null,
        name: "",
        items: [{ serviceId: services.sweep }],
        note: "",
        checklist: [],
        minutes: null,
        crew: null,
        active: true,
        ...typed,
      },
      office,
    ).id;
  const agree = (more: object = {}) =>
    mustPerform(
      hogar,
      agreeRepeat,
      {
        customerId,
        siteId: site,
        items: [justOne(services.sweep)],
        rule: "FREQ=WEEKLY;INTERVAL=2",
        from: "2027-04-07",
        fromMinute: 540,
        toMinute: 660,
        technicianId: null,
        onClosed: "nearest",
        comes: "set",
        leewayDays: null,
        counted: "calendar",
        ...more,
      },
      office,
    ).repeatId;
  const settle = async () => {
    for (let i = 0; i < 6; i++) await runDue(hogar);
  };
  const visits = (repeatId: number) =>
    hogar.store
      .sql<{ id: number; date: string; state: string; minutes: number; minor: number | null }>(
        "SELECT id, date, state, minutes, forecast_minor AS minor FROM visits WHERE repeat_id = ? ORDER BY date",
      )
      .all(repeatId);
  const shown = (repeatId: number) => {
    const view = look(hogar, repeatView, { repeatId }, office);
    if (!view.ok) throw new Error(view.problem.sentence);
    return view.value;
  };
  return { ...small, customerId, site, pattern, agree, settle, visits, shown };
}

describe("a repeat by job patterns", () => {
  it("takes longer the first time and every fourth time, at the price of that work", async () => {
    const w = world();
    const big = w.pattern("Big sweep", { minutes: 120, items: [{ serviceId: w.services.sweep, quantity: 2 }] });
    const full = w.pattern("Full sweep", { minutes: 90 });
    const repeatId = w.agree({ firstPatternId: full, nth: { every: 4, patternId: big } });
    await w.settle();
    const [usual] = [w.visits(repeatId)[1]!];
    expect(
      w
        .visits(repeatId)
        .slice(0, 8)
        .map((v) => v.minutes),
    ).toEqual([90, 60, 60, 120, 60, 60, 60, 120]);
    expect(w.visits(repeatId)[3]!.minor).toBe(2 * usual.minor!);
    expect(w.shown(repeatId).workWords).toBe("Chimney sweep; the first time Full sweep; every 4th Big sweep");
  });

  it("follows what is changed in the pattern with its forecasts; what is promised stays as it was agreed", async () => {
    const w = world();
    const typed = { id: null, name: "Small sweep", items: [{ serviceId: w.services.sweep }], note: "", checklist: [] };
    const id = w.pattern("Small sweep", { minutes: 30 });
    const repeatId = w.agree({ items: [{ ...justOne(w.services.sweep), patternId: id }] });
    await w.settle();
    mustPerform(w.hogar, promiseDate, { repeatId, date: "2027-04-07" }, office);
    mustPerform(w.hogar, saveJobPattern, { ...typed, id, minutes: 40, crew: null, active: true }, office);
    await w.settle();
    expect(w.visits(repeatId).slice(0, 3)).toMatchObject([
      { state: "promised", minutes: 30 },
      { state: "forecast", minutes: 40 },
      { state: "forecast", minutes: 40 },
    ]);
  });

  it("is other work for one date alone, by somebody else, until that is taken back", async () => {
    const w = world();
    const big = w.pattern("Big sweep", { minutes: 120 });
    const repeatId = w.agree();
    await w.settle();
    const about = { repeatId, date: "2027-04-21" };
    mustPerform(w.hogar, agreeRepeatDate, { ...about, patternId: big, technicianId: w.technicians[1]! }, office);
    await w.settle();
    const dated = () => w.shown(repeatId).coming.find(({ date }) => date === about.date)!;
    expect(
      w
        .visits(repeatId)
        .slice(0, 3)
        .map((v) => v.minutes),
    ).toEqual([60, 120, 60]);
    expect(dated()).toMatchObject({ otherWork: { name: "Big sweep", minutes: 120 }, technician: "Petra Lindqvist" });
    mustPerform(w.hogar, agreeRepeatDate, { ...about, patternId: null, technicianId: null }, office);
    await w.settle();
    expect(dated().otherWork).toBeNull();
  });

  it("costs its own price where one was agreed for a visit; the longer first one costs what its work costs", async () => {
    const w = world();
    const big = w.pattern("Big sweep", { items: [{ serviceId: w.services.sweep, quantity: 2 }] });
    const repeatId = w.agree({ firstPatternId: big });
    mustPerform(w.hogar, setRepeatPrice, { repeatId, per: "visit", minor: 5000, visits: 1, review: null }, office);
    await w.settle();
    expect(
      w
        .visits(repeatId)
        .slice(0, 2)
        .map((v) => v.minor),
    ).toEqual([2 * 7900, 5000]);
  });

  it("costs from its day on what a review says, promised before that day or not", async () => {
    const w = world();
    const repeatId = w.agree();
    const review = { date: "2027-04-20", byBp: 1000, noticeDays: 10 };
    mustPerform(w.hogar, setRepeatPrice, { repeatId, per: "visit", minor: 5000, visits: 1, review }, office);
    await w.settle();
    const ahead = w.visits(repeatId).slice(0, 3);
    expect(ahead.map((v) => v.minor)).toEqual([5000, 5500, 5500]);
    mustPerform(w.hogar, promiseDate, { repeatId, date: "2027-04-21" }, office);
    const jobs = w.hogar.store.sql<{ total_minor: number }>("SELECT total_minor FROM jobs ORDER BY id DESC LIMIT 1");
    expect(jobs.get()!.total_minor).toBe(5500);
  });

  it("is included in a month as often as was agreed; every further visit costs what its work costs", async () => {
    const w = world();
    const repeatId = w.agree();
    mustPerform(w.hogar, setRepeatPrice, { repeatId, per: "month", minor: 6000, visits: 1, review: null }, office);
    await w.settle();
    const ahead = w.visits(repeatId).slice(0, 5);
    const months = ahead.map((v) => v.date.slice(0, 7));
    expect(ahead.map((v) => v.minor)).toEqual(months.map((month, i) => (months.indexOf(month) === i ? 0 : 7900)));
    expect(new Set(months).size).toBeLessThan(5);
  });

  it("is billed for a part of its first month by the days, where the owner has it so", async () => {
    const w = world();
    const repeatId = w.agree();
    const papers = { invoicePrefix: "", creditPrefix: "C", bankAccount: "", exemptWords: "" };
    const billing = { ...papers, paymentFrom: "invoice", by: "job", partMonths: "days" } as const;
    mustPerform(w.hogar, saveBusiness, { ...businessInput, billing }, office);
    mustPerform(w.hogar, setRepeatPrice, { repeatId, per: "month", minor: 6000, visits: 1, review: null }, office);
    w.at("2027-04-08", 600);
    await w.settle();
    expect(
      w.hogar.store.sql("SELECT amount_minor, description LIKE '%24 of 30 days' AS says FROM invoice_lines").all(),
    ).toEqual([{ amount_minor: 4800, says: 1 }]);
  });

  it("says what it was before, so that it can be taken back", async () => {
    const w = world();
    const big = w.pattern("Big sweep", { minutes: 120 });
    const repeatId = w.agree();
    const done = mustPerform(
      w.hogar,
      setRepeatWork,
      { repeatId, patternId: big, firstPatternId: null, nth: null },
      office,
    );
    expect(done.before).toEqual({ usual: null, first: null, nth: null });
    expect(w.shown(repeatId).minutes).toBe(120);
  });
});

describe("a job pattern", () => {
  it("brings its minutes, its notes and its checklist into a booking on the phone", async () => {
    const w = world();
    const patternId = w.pattern("Careful sweep", {
      minutes: 45,
      note: "Cover the carpet first.",
      checklist: [{ id: "carpet", words: "Carpet covered", required: true }],
    });
    const [offer] = w.offers(w.services.sweep, 9);
    const { visitId } = mustPerform(
      w.hogar,
      bookInOffice,
      {
        addressId: w.addresses[9]!.id,
        items: [{ ...justOne(w.services.sweep), patternId }],
        date: offer!.date,
        from: offer!.from,
        to: offer!.to,
        customer: { id: w.customerId },
        note: "",
      },
      office,
    );
    expect(one(w.hogar, "SELECT minutes FROM visits WHERE id = ?", visitId)).toEqual({ minutes: 45 });
    w.at(offer!.date, 400);
    const technician = one<{ id: number }>(
      w.hogar,
      "SELECT technician_id AS id FROM placements WHERE visit_id = ?",
      visitId,
    );
    const bram = personActor({ id: 1, name: "Bram Okafor", role: "technician", technicianId: technician.id });
    expect(look(w.hogar, fieldDay, {}, bram)).toMatchObject({
      ok: true,
      value: {
        stops: expect.arrayContaining([
          expect.objectContaining({
            instructions: "Cover the carpet first.",
            checklist: expect.arrayContaining([expect.objectContaining({ words: "Carpet covered" })]),
          }),
        ]),
      },
    });
  });

  it("is not chosen by a customer at the front door", async () => {
    const w = world();
    const patternId = w.pattern("Quick sweep", { minutes: 10 });
    const items = [{ ...justOne(w.services.sweep), patternId }];
    const [offer] = w.offers(w.services.sweep, 9);
    const booked = w.book({ nth: 9, window: offer!, items });
    expect(saidOf(booked)).toContain("not known here");
  });

  it("is refused where its services are not one visit at one place", async () => {
    const w = world();
    const said = (items: { serviceId: number }[]) =>
      perform(
        w.hogar,
        saveJobPattern,
        { id: null, name: "Odd", items, note: "", checklist: [], minutes: null, crew: null, active: true },
        office,
      );
    const long = mustPerform(
      w.hogar,
      saveService,
      {
        ...serviceInput,
        id: null,
        code: "LW",
        name: "Long work",
        days: 3,
        priceMinor: 9000,
        minutes: 60,
        deposit: { kind: "none", value: 0 },
      },
      office,
    ).id;
    expect(said([{ serviceId: long }])).toMatchObject({
      problem: { fields: { "/items/0/serviceId": expect.stringContaining("several days") } },
    });
    expect(said([{ serviceId: 999 }])).toMatchObject({
      problem: { fields: { "/items/0/serviceId": expect.stringContaining("not there any more") } },
    });
  });
});

describe("an agreement for several sites", () => {
  const withTwo = async () => {
    const w = world();
    const other = mustPerform(
      w.hogar,
      saveSite,
      { id: null, customerId: w.customerId, addressId: w.addresses[14]!.id, name: "", access: "", parking: "" },
      office,
    ).id;
    const repeatId = w.agree({
      otherSites: [{ siteId: other, from: "2027-04-07", fromMinute: 660, toMinute: 780 }],
    });
    await w.settle();
    const [together] = w.shown(repeatId).together;
    return { ...w, repeatId, otherId: together!.id };
  };

  it("has dates of its own at each, and each knows the others", async () => {
    const w = await withTwo();
    expect(
      w
        .visits(w.otherId)
        .slice(0, 2)
        .map((v) => v.date),
    ).toEqual(["2027-04-07", "2027-04-21"]);
    expect(w.shown(w.otherId).together.map(({ id }) => id)).toEqual([w.repeatId]);
  });

  it("changes, pauses and ends for all of them, or for one", async () => {
    const w = await withTwo();
    const terms = { fromMinute: 540, toMinute: 660, technicianId: null, onClosed: "nearest" as const };
    mustPerform(
      w.hogar,
      changeRepeat,
      { repeatId: w.repeatId, from: "2027-05-01", rule: "FREQ=WEEKLY;INTERVAL=4", ...terms, together: true },
      office,
    );
    expect(w.shown(w.otherId)).toMatchObject({ rule: "FREQ=WEEKLY;INTERVAL=4", fromMinute: 660, toMinute: 780 });
    const { pauses } = mustPerform(
      w.hogar,
      pauseRepeat,
      { repeatId: w.repeatId, first: "2027-07-01", last: "2027-07-31", together: true },
      office,
    );
    expect(pauses.map((pause) => pause.repeatId)).toEqual([w.repeatId, w.otherId]);
    mustPerform(w.hogar, endRepeat, { repeatId: w.repeatId }, office);
    expect(w.shown(w.otherId)).toMatchObject({ state: "active", together: [] });
  });
});

describe("a repeat whose card has expired", () => {
  it("needs a person, who is told what to do next", async () => {
    const w = world();
    const repeatId = w.agree();
    await w.settle();
    mustPerform(w.hogar, promiseDate, { repeatId, date: "2027-04-07" }, office);
    const { job } = one<{ job: number }>(
      w.hogar,
      "SELECT job_id AS job FROM visits WHERE repeat_id = ? AND job_id IS NOT NULL",
      repeatId,
    );
    const keep = (reference: string, expires: string) =>
      mustPerform(
        w.hogar,
        recordKeptCard,
        { customerId: w.customerId, jobId: job, reference, label: "card ending 1006", expires },
        worker,
      );
    const page = {
      page: 0,
      size: 10,
      sort: "next" as const,
      descending: false,
      search: "",
      show: "card expired" as const,
    };
    const listed = () => look(w.hogar, repeats, page, office) as { ok: boolean };
    keep("card_1", "2027-02");
    expect(listed()).toMatchObject({ value: { rows: [{ id: repeatId, needs: "for another card" }] } });
    keep("card_2", "2029-02");
    expect(listed()).toMatchObject({ value: { rows: [] } });
  });
});
