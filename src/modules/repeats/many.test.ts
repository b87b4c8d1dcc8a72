import { mustPerform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { runDue } from "@/worker/loop";
import { office, smallWorld } from "@demo/small-world";
import { agreeRepeat } from "./operations/agree-repeat";
import { beginRepeatBatch, endRepeatBatch } from "./operations/batches";
import { setTechnicianActive } from "@/modules/team/operations/save-technician";
import { changeRepeat, pauseRepeat, undoRepeatChange } from "./operations/changes";
import { reviewRepeatPrice, setRepeatPrice } from "./operations/ways";
import { repeatView } from "./views/repeat";
import { repeatBatches, repeatIds, repeatsProposal } from "./views/many";
import { repeatPlaces } from "./views/repeat-places";
import { repeats, repeatsOutlook } from "./views/repeats";

/** Two who come every week, on Wednesdays and on Fridays, agreed without a visit before. */
async function world() {
  const small = smallWorld();
  const { actor } = small.booked();
  const { site } = small.hogar.store
    .sql<{ site: number }>("SELECT id AS site FROM sites WHERE customer_id = ?")
    .get(actor.customerId)!;
  const agree = (from: string) =>
    mustPerform(
      small.hogar,
      agreeRepeat,
      {
        customerId: actor.customerId,
        siteId: site,
        items: [{ serviceId: small.services.sweep }],
        rule: "FREQ=WEEKLY",
        from,
        fromMinute: 540,
        toMinute: 660,
        technicianId: null,
        onClosed: "nearest",
        comes: "set",
        leewayDays: null,
        counted: "calendar",
      },
      office,
    ).repeatId;
  const ids = { wednesdays: agree("2027-04-07"), fridays: agree("2027-04-09") };
  for (let i = 0; i < 6; i++) await runDue(small.hogar);
  const dates = (id: number) =>
    small.hogar.store
      .sql<{ date: string }>("SELECT date FROM visits WHERE repeat_id = ? AND state = 'forecast' ORDER BY date")
      .all(id)
      .map(({ date }) => date);
  return { ...small, site, ids, dates };
}

const valueOf = <T>(result: { ok: true; value: T } | { ok: false; problem: { sentence: string } }): T => {
  if (!result.ok) throw new Error(result.problem.sentence);
  return result.value;
};

describe("a repeat that is agreed without a visit before", () => {
  it("has its dates as forecasts from the first one on", async () => {
    const { ids, dates } = await world();
    expect(dates(ids.wednesdays).slice(0, 2)).toEqual(["2027-04-07", "2027-04-14"]);
  });

  it("is told the best days over its next ten dates, each with room and cost", async () => {
    const { hogar, site, services } = await world();
    const about = {
      siteId: site,
      items: [{ serviceId: services.sweep }],
      rule: "FREQ=WEEKLY;INTERVAL=4",
      from: "2027-04-05",
    };
    const places = valueOf(look(hogar, repeatPlaces, about, office));
    expect(places).toHaveLength(3);
    for (const place of places) expect(place).toMatchObject({ of: 10, technician: expect.any(String) });
    // Whoever lives here is visited on Wednesdays and Fridays anyway: no minute more of driving.
    expect(places[0]!.driving).toBeLessThanOrEqual(places[2]!.driving);
    expect(places[0]!.near.length).toBeGreaterThan(0);
  });
});

describe("many repeats", () => {
  it("are proposed with what it would do to each; one that it does not concern is left out", async () => {
    const { hogar, ids } = await world();
    const which = { search: "", serviceId: null, zoneId: null, technicianId: null };
    const all = valueOf(look(hogar, repeatIds, which, office));
    expect(all.sort()).toEqual([ids.wednesdays, ids.fridays]);
    const change = { weekday: { from: 4, to: 3 }, until: null, technician: null };
    const proposals = valueOf(look(hogar, repeatsProposal, { ids: all, change, from: "2027-05-01" }, office));
    expect(proposals).toMatchObject([
      {
        id: ids.fridays,
        from: "every week on Friday, whoever is near",
        to: "every week on Thursday, whoever is near",
        odd: null,
        promised: 0,
        terms: { from: "2027-05-01", rule: "FREQ=WEEKLY;BYDAY=TH" },
      },
    ]);
  });

  it("are changed as proposed, and taken back", async () => {
    const { hogar, ids, dates } = await world();
    const before = dates(ids.fridays);
    const change = { weekday: { from: 4, to: 3 }, until: "2027-06-30", technician: { to: null } };
    const [proposal] = valueOf(
      look(hogar, repeatsProposal, { ids: [ids.fridays], change, from: "2027-05-01" }, office),
    );
    mustPerform(hogar, changeRepeat, { repeatId: ids.fridays, ...proposal!.terms! }, office);
    for (let i = 0; i < 4; i++) await runDue(hogar);
    expect(dates(ids.fridays).slice(2, 6)).toEqual(["2027-04-23", "2027-04-30", "2027-05-06", "2027-05-13"]);
    expect(dates(ids.fridays).at(-1)).toBe("2027-06-24");
    mustPerform(hogar, undoRepeatChange, { repeatId: ids.fridays }, office);
    for (let i = 0; i < 6; i++) await runDue(hogar);
    expect(dates(ids.fridays)).toEqual(before);
  });
});

describe("a change of many", () => {
  it("can be taken back as one later on, as far as nothing else was changed since", async () => {
    const { hogar, ids } = await world();
    const { batchId } = mustPerform(hogar, beginRepeatBatch, { words: "All to whoever is best" }, office);
    const terms = { fromMinute: 540, toMinute: 660, technicianId: null, onClosed: "later" as const };
    for (const repeatId of [ids.wednesdays, ids.fridays])
      mustPerform(
        hogar,
        changeRepeat,
        { repeatId, from: "2027-05-01", rule: "FREQ=WEEKLY;INTERVAL=2", ...terms, batchId },
        office,
      );
    const batches = () => valueOf(look(hogar, repeatBatches, {}, office));
    expect(batches()).toMatchObject([{ words: "All to whoever is best", repeatIds: [ids.wednesdays, ids.fridays] }]);
    mustPerform(hogar, undoRepeatChange, { repeatId: ids.fridays }, office);
    expect(batches()).toMatchObject([{ repeatIds: [ids.wednesdays] }]);
    mustPerform(hogar, endRepeatBatch, { batchId }, office);
    expect(batches()).toEqual([]);
  });
});

describe("a pause and another price for many", () => {
  const change = {
    weekday: null,
    until: null,
    technician: null,
    pause: { first: "2027-05-01", last: "2027-05-31" },
    priceBp: 500,
  };

  it("say before what they do to each, and whom they do not concern", async () => {
    const { hogar, ids } = await world();
    const price = { per: "visit" as const, minor: 6000, visits: 1, review: null };
    mustPerform(hogar, setRepeatPrice, { repeatId: ids.fridays, ...price }, office);
    const asked = { ids: [ids.wednesdays, ids.fridays], change, from: "2027-06-01" };
    expect(valueOf(look(hogar, repeatsProposal, asked, office))).toMatchObject([
      { terms: null, also: ["paused: 4 dates left out"], reviews: false },
      { terms: null, also: ["paused: 4 dates left out", "€60.00 becomes €63.00 from 1 June 2027"], reviews: true },
    ]);
    const priceAlone = { ...asked, change: { ...change, pause: null } };
    expect(valueOf(look(hogar, repeatsProposal, priceAlone, office)).map(({ id }) => id)).toEqual([ids.fridays]);
  });

  it("are taken back as one, together with new terms of the same change", async () => {
    const { hogar, ids, dates } = await world();
    const repeatId = ids.fridays;
    const price = { per: "visit" as const, minor: 6000, visits: 1, review: null };
    mustPerform(hogar, setRepeatPrice, { repeatId, ...price }, office);
    const before = dates(repeatId);
    const { batchId } = mustPerform(hogar, beginRepeatBatch, { words: "Paused in May" }, office);
    const terms = { fromMinute: 780, toMinute: 900, technicianId: null, onClosed: "nearest" as const };
    mustPerform(
      hogar,
      changeRepeat,
      { repeatId, from: "2027-05-01", rule: "FREQ=WEEKLY;INTERVAL=2", ...terms, batchId },
      office,
    );
    mustPerform(hogar, pauseRepeat, { repeatId, ...change.pause, batchId }, office);
    const review = { date: "2027-06-01", byBp: 500, noticeDays: 30 };
    mustPerform(hogar, reviewRepeatPrice, { repeatId, review, batchId }, office);
    mustPerform(hogar, undoRepeatChange, { repeatId }, office);
    for (let i = 0; i < 6; i++) await runDue(hogar);
    expect(dates(repeatId)).toEqual(before);
    const seen = valueOf(look(hogar, repeatView, { repeatId }, office));
    expect([seen.pauses, seen.review]).toEqual([[], null]);
  });
});

describe("a repeat whose technician has left", () => {
  it("can be found by them, and goes to whoever is best by a proposal", async () => {
    const { hogar, ids, technicians } = await world();
    const [gone] = technicians;
    const terms = { fromMinute: 540, toMinute: 660, technicianId: gone!, onClosed: "nearest" as const };
    mustPerform(
      hogar,
      changeRepeat,
      { repeatId: ids.fridays, from: "2027-04-09", rule: "FREQ=WEEKLY", ...terms },
      office,
    );
    mustPerform(hogar, setTechnicianActive, { id: gone!, active: false }, office);
    const outlook = valueOf(look(hogar, repeatsOutlook, {}, office));
    expect(outlook.technicians.filter(({ hasLeft }) => hasLeft)).toMatchObject([{ id: gone }]);
    expect(outlook.counts["technician left"]).toBe(1);
    const which = { search: "", serviceId: null, zoneId: null, technicianId: gone! };
    const found = valueOf(look(hogar, repeatIds, which, office));
    const toBest = { weekday: null, until: null, technician: { to: null } };
    const asked = { ids: found, change: toBest, from: "2027-04-09" };
    expect(valueOf(look(hogar, repeatsProposal, asked, office))).toMatchObject([
      { id: ids.fridays, to: expect.stringContaining("whoever is near"), terms: { technicianId: null } },
    ]);
  });
});

describe("the list of repeats", () => {
  it("says what the months ahead hold, and narrows to those that need something", async () => {
    const { hogar, services } = await world();
    const outlook = valueOf(look(hogar, repeatsOutlook, {}, office));
    expect([outlook.active, outlook.counts["no room"], outlook.months.length]).toEqual([2, 0, 12]);
    // April has four Wednesdays and four Fridays from the 7th on, an hour of work each, at €79.
    const april = outlook.months.find(({ month }) => month === "2027-04")!;
    expect([april.minutes, april.minor]).toEqual([8 * 60, 8 * 7900]);
    expect(april.thereAre).toBeGreaterThan(0);
    const page = { page: 0, size: 10, sort: "next" as const, descending: false, search: "" };
    const rows = (more: object) => valueOf(look(hogar, repeats, { ...page, ...more }, office)).rows;
    expect(rows({ serviceId: services.survey })).toEqual([]);
    expect(rows({ show: "no room" })).toEqual([]);
    expect(rows({ serviceId: services.sweep })[0]).toMatchObject({ next: "2027-04-07", kept: null, state: "active" });
  });
});
