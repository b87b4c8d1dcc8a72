import { personActor } from "@/core/people/permissions";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { saveFrontDoor } from "@/modules/front-door/operations/save-front-door";
import { money } from "@/modules/money/views/money";
import { addByLink, cancelByLink, confirmByLink, moveByLink } from "@/modules/my-visit/operations/by-link";
import { myVisit } from "@/modules/my-visit/views/my-visit";
import { savePerson } from "@/modules/people/operations/save-person";
import { quoteDraft } from "@/modules/quotes/views/quote-draft";
import { makeRepeat } from "@/modules/repeats/operations/repeats";
import { answerRequests, bookRequest } from "@/modules/requests/operations/requests";
import { setup } from "@/modules/setup/views/setup";
import { fieldDay } from "@/modules/visits/views/field";
import { visitSheet } from "@/modules/visits/views/visit-sheet";
import { firstPage } from "@/ui/first-page";
import { runDue } from "@/worker/loop";
import { office, one, serviceInput, smallWorld, worldWithPost } from "@demo/small-world";
import { approveBookings, declineIncoming, proposeWindow, takeOn } from "./operations/incoming";
import { incoming, incomingEntry } from "./views/incoming";

type World = ReturnType<typeof smallWorld>;

type Post = ReturnType<typeof worldWithPost>;

const service = { ...serviceInput };

/** A world whose sweep is confirmed by a person, with a deposit where asked. */
function worldWith(deposit = 0): Post {
  const world = worldWithPost();
  mustPerform(
    world.hogar,
    saveService,
    {
      ...service,
      id: world.services.sweep,
      code: "SW",
      name: "Chimney sweep",
      priceMinor: 7900,
      minutes: 60,
      deposit: deposit ? { kind: "fixed", value: deposit } : { kind: "none", value: 0 },
      confirm: true,
    },
    office,
  );
  return world;
}

const longestFirst = firstPage<"incoming">("at");

const entries = (world: World) => {
  const view = look(world.hogar, incoming, longestFirst, office);
  return view.ok ? view.value.rows : [];
};

const subjects = (world: World) =>
  world.hogar.store
    .sql<{ subject: string }>("SELECT subject FROM messages WHERE channel = 'mail' ORDER BY id")
    .all()
    .map((m) => m.subject.split(":")[0]);

const approvalOf = (world: World, jobId: number) =>
  one<{ approval: string }>(world.hogar, "SELECT approval FROM jobs WHERE id = ?", jobId).approval;

const late = { weekdays: 127, from: 17 * 60, to: 20 * 60, until: null };

const ask = (world: World, more: object = {}) => world.asked({ wish: late, ...more });

describe("a booking that a person confirms", () => {
  it("keeps its room and waits; confirmed, it stands and the customer is told", () => {
    const world = worldWith();
    const { jobId, actor } = world.booked();
    expect(entries(world)).toMatchObject([
      { kind: "booking", id: jobId, waits: "to be confirmed", what: "Chimney sweep", totalMinor: 7900, handler: null },
    ]);
    expect([subjects(world), one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM placements").n]).toEqual([
      ["We have your booking"],
      1,
    ]);
    // Nothing is agreed yet: it costs nothing to leave, and the field does not see it.
    expect(look(world.hogar, myVisit, {}, actor)).toMatchObject({
      value: { changes: { mayMove: false, mayCancel: true, feeMinor: 0 } },
    });
    world.at("2027-03-10", 480);
    const [technician] = world.hogar.store.sql<{ technician_id: number }>("SELECT technician_id FROM placements").all();
    const field = personActor({ id: 9, name: "Bram", role: "technician", technicianId: technician!.technician_id });
    expect(look(world.hogar, fieldDay, {}, field)).toMatchObject({ value: { stops: [] } });
    mustPerform(world.hogar, approveBookings, { jobIds: [jobId] }, office);
    expect([entries(world), subjects(world)]).toEqual([[], ["We have your booking", "Confirmed"]]);
    expect(look(world.hogar, fieldDay, {}, field)).toMatchObject({ value: { stops: [{ service: "Chimney sweep" }] } });
    expect(perform(world.hogar, approveBookings, { jobIds: [jobId] }, office)).toMatchObject({
      problem: { sentence: "This does not wait any more: somebody has dealt with it." },
    });
  });

  it("can be proposed another time, which the customer accepts or answers with another", () => {
    const world = worldWith();
    const { jobId, actor } = world.booked();
    const other = world.offers().find((o) => o.date === "2027-03-12")!;
    mustPerform(world.hogar, proposeWindow, { jobId, date: other.date, from: other.from, to: other.to }, office);
    expect([approvalOf(world, jobId), subjects(world).at(-1), entries(world)[0]!.waits]).toEqual([
      "proposed",
      "Another time",
      "for the customer’s answer",
    ]);
    expect(one(world.hogar, "SELECT count(*) AS n, sum(ended_at IS NULL) AS open FROM promises")).toEqual({
      n: 2,
      open: 1,
    });
    const third = world.offers().find((o) => o.date === "2027-03-11")!;
    mustPerform(world.hogar, moveByLink, { date: third.date, from: third.from, to: third.to }, actor);
    expect(approvalOf(world, jobId)).toBe("waiting");
    world.later(1);
    mustPerform(world.hogar, proposeWindow, { jobId, date: other.date, from: other.from, to: other.to }, office);
    mustPerform(world.hogar, confirmByLink, {}, actor);
    // What was never promised does not stand among the promises.
    const history = look(
      world.hogar,
      visitSheet,
      { visitId: one<{ id: number }>(world.hogar, "SELECT id FROM visits").id },
      office,
    );
    expect(history.ok && history.value.promises.map((p) => p.pencilled)).toEqual([true, true, true, false]);
    // Their own answer was told as one that waits, not as a new time that stands.
    expect(subjects(world)).not.toContain("New time");
    expect([
      approvalOf(world, jobId),
      one<{ date: string }>(world.hogar, "SELECT date FROM visits WHERE job_id = ?", jobId).date,
      subjects(world).at(-1),
    ]).toEqual(["given", "2027-03-12", "Confirmed"]);
  });

  it("can be declined with a reason: the room is free again, and the deposit goes back", async () => {
    const world = worldWith(3000);
    const { jobId, visitId } = world.booked({ card: "9900000000001006" });
    await runDue(world.hogar);
    mustPerform(world.hogar, makeRepeat, { visitId, rule: "FREQ=MONTHLY" }, office);
    expect([entries(world)[0]!.waits, subjects(world)]).toEqual(["to be confirmed", ["We have your booking"]]);
    mustPerform(
      world.hogar,
      declineIncoming,
      { entries: [{ kind: "booking", id: jobId }], reason: "The road is closed." },
      office,
    );
    await runDue(world.hogar);
    expect(
      one(
        world.hogar,
        "SELECT (SELECT count(*) FROM placements) AS placed, (SELECT sum(amount_minor) FROM refunds WHERE state = 'refunded') AS back",
      ),
    ).toEqual({ placed: 0, back: 3000 });
    // What was to come again with it does not.
    expect(
      world.hogar.store
        .sql("SELECT state FROM repeats UNION ALL SELECT state FROM visits WHERE state = 'forecast'")
        .all(),
    ).toEqual([{ state: "ended" }]);
    expect(one<{ body: string }>(world.hogar, "SELECT body FROM messages ORDER BY id DESC LIMIT 1").body).toContain(
      "The road is closed.",
    );
    expect(look(world.hogar, money, {}, office)).toMatchObject({ value: { totals: { agrees: true } } });
  });
});

describe("whoever sees only their own visits", () => {
  it("reads nothing of what waits, and changes none of it", () => {
    const world = worldWith();
    const { jobId } = world.booked();
    const id = ask(world);
    const limited = personActor({
      id: 2,
      name: "Bram",
      role: "dispatcher",
      technicianId: world.technicians[0]!,
      taken: ["visits.all"],
    });
    const { date, from, to } = world.offers().find((o) => o.date === "2027-03-12")!;
    const entry = [{ kind: "request" as const, id }];
    const tries = [
      look(world.hogar, incomingEntry, { kind: "booking", id: jobId }, limited),
      look(world.hogar, quoteDraft, { kind: "booking", id: jobId }, limited),
      perform(world.hogar, approveBookings, { jobIds: [jobId] }, limited),
      perform(world.hogar, proposeWindow, { jobId, date, from, to }, limited),
      perform(world.hogar, declineIncoming, { entries: entry, reason: "No room" }, limited),
      perform(world.hogar, takeOn, { entries: entry, personId: null }, limited),
      perform(world.hogar, answerRequests, { ids: [id] }, limited),
      perform(world.hogar, bookRequest, { requestId: id, date, from, to }, limited),
    ];
    // Nor can what came in be handed to them.
    const { id: personId } = mustPerform(
      world.hogar,
      savePerson,
      {
        id: null,
        name: "Bram",
        mail: "bram@marrowick.example",
        password: "open the door",
        role: "dispatcher",
        technicianId: world.technicians[0]!,
        active: true,
        given: [],
        taken: ["visits.all"],
      },
      office,
    );
    expect(perform(world.hogar, takeOn, { entries: entry, personId }, office)).toMatchObject({
      problem: { fields: { "/personId": expect.stringContaining("everybody’s visits") } },
    });
    for (const result of tries) expect(result).toMatchObject({ ok: false, problem: { code: "not-allowed" } });
    expect(look(world.hogar, incoming, longestFirst, limited)).toMatchObject({
      value: { rows: [], count: 0, forUs: 0 },
    });
    expect(entries(world)).toHaveLength(2);
  });
});

describe("the office", () => {
  it("sees the best windows with who would come, books a request in one of them and tells the customer", () => {
    const world = smallWorld();
    const id = ask(world, { wish: { ...late, weekdays: 4, from: 0, to: 1440 } });
    const view = look(world.hogar, incomingEntry, { kind: "request", id }, office);
    if (!view.ok) throw new Error(view.problem.sentence);
    const [best] = view.value.windows;
    expect(best).toMatchObject({
      date: "2027-03-10",
      technicians: [expect.any(String)],
      extraDriving: expect.any(Number),
    });
    expect(view.value).toMatchObject({ totalMinor: 7900, wish: "Wednesdays, any time" });
    mustPerform(world.hogar, bookRequest, { requestId: id, date: best!.date, from: best!.from, to: best!.to }, office);
    expect([entries(world), subjects(world)]).toEqual([[], ["Booked"]]);
  });

  it("books outside all zones, where it says what is to be done", () => {
    const world = smallWorld();
    const rules = look(world.hogar, setup, {}, office);
    if (!rules.ok) throw new Error(rules.problem.sentence);
    const beyond = world.town.addresses.find((a) => a.postcode.startsWith("MW 3"))!;
    world.hogar.store.db.transaction(() =>
      world.hogar.store.audit.under({ at: 0, actor: "test", operation: "test" }, () =>
        world.hogar.store.sql("UPDATE business SET outside = 'request'").run(),
      ),
    )();
    const id = ask(world, { addressId: beyond.id, items: [], wishes: "Two flues", wish: null });
    expect(look(world.hogar, incomingEntry, { kind: "request", id }, office)).toMatchObject({
      value: { needs: "service", windows: [] },
    });
    const view = look(world.hogar, incomingEntry, { kind: "request", id, serviceId: world.services.sweep }, office);
    const [best] = view.ok ? view.value.windows : [];
    mustPerform(
      world.hogar,
      bookRequest,
      { requestId: id, serviceId: world.services.sweep, date: best!.date, from: best!.from, to: best!.to },
      office,
    );
    expect(one(world.hogar, "SELECT zone_id FROM visits WHERE state = 'promised'")).toEqual({ zone_id: null });
  });

  it("hands things over, declines several at once, and answers by phone", async () => {
    const world = worldWith();
    const { jobId } = world.booked();
    const [first, second] = [ask(world), ask(world)];
    const both = [
      { kind: "booking" as const, id: jobId },
      { kind: "request" as const, id: first },
    ];
    mustPerform(world.hogar, takeOn, { entries: both, personId: 1 }, office);
    expect(entries(world).map((e) => e.handler)).toEqual(["Odile Brandt", "Odile Brandt", null]);
    mustPerform(world.hogar, declineIncoming, { entries: both, reason: "We are closed that week." }, office);
    mustPerform(world.hogar, answerRequests, { ids: [second] }, office);
    expect(entries(world)).toEqual([]);
    await runDue(world.hogar);
    expect(world.sent.filter((m) => /closed that week/.test(m.body))).toHaveLength(2);
  });

  it("is told of new bookings and of requests, everybody whom the owner names, once each", async () => {
    const world = worldWithPost();
    const view = look(world.hogar, setup, {}, office);
    if (!view.ok) throw new Error(view.problem.sentence);
    mustPerform(
      world.hogar,
      saveFrontDoor,
      {
        ...view.value.frontDoor,
        tells: [
          { way: "mail", to: "tomas@marrowick.example" },
          { way: "mail", to: "odile@marrowick.example" },
          { way: "text", to: "+1 555 0100" },
        ],
      },
      office,
    );
    world.booked();
    await runDue(world.hogar);
    await runDue(world.hogar);
    const mails = world.sent.filter((m) => m.way === "mail" && m.subject.startsWith("New booking"));
    expect(mails.map((m) => m.to).sort()).toEqual(["odile@marrowick.example", "tomas@marrowick.example"]);
    expect(mails[0]!.body).toContain("Chimney sweep, €79.00");
    expect(world.sent.filter((m) => m.way === "text" && m.to === "+1 555 0100")).toHaveLength(1);
    ask(world, { wishes: "I am home from five." });
    await runDue(world.hogar);
    const asked = world.sent.filter(
      (m) => m.way === "mail" && m.subject === "Selma Vance asks for Chimney sweep: no window suits",
    );
    expect(asked.map((m) => m.to).sort()).toEqual(["odile@marrowick.example", "tomas@marrowick.example"]);
    expect(asked[0]!.body).toContain("any day, 17–20\n“I am home from five.”");
  });
});

describe("what a customer changes by the link", () => {
  it("is told to the office once each, with what they say", async () => {
    const world = worldWithPost();
    const view = look(world.hogar, setup, {}, office);
    if (!view.ok) throw new Error(view.problem.sentence);
    mustPerform(
      world.hogar,
      saveFrontDoor,
      { ...view.value.frontDoor, tells: [{ way: "mail", to: "tomas@marrowick.example" }] },
      office,
    );
    const [, , third, last] = world.offers().filter((o) => o.date === "2027-03-12");
    const { actor } = world.booked({ window: third! });
    mustPerform(world.hogar, moveByLink, { date: last!.date, from: last!.from, to: last!.to }, actor);
    mustPerform(world.hogar, addByLink, { words: "The bell does not work.", photos: [] }, actor);
    mustPerform(world.hogar, cancelByLink, { feeMinor: 0 }, actor);
    await runDue(world.hogar);
    await runDue(world.hogar);
    const mails = world.sent.filter((m) => m.to === "tomas@marrowick.example");
    expect(mails.map((m) => m.subject)).toEqual([
      "New booking: Chimney sweep, Friday 12 March, 13–15",
      "Moved by the customer: Chimney sweep, Friday 12 March, 15–17",
      "The customer adds something: Chimney sweep, Friday 12 March, 15–17",
      "Cancelled by the customer: Chimney sweep, Friday 12 March, 15–17",
    ]);
    expect(mails[2]!.body).toContain("“The bell does not work.”");
  });
});

describe("what waits", () => {
  const three = () => {
    const world = worldWith();
    ask(world);
    ask(world, { name: "Ines Tallow" });
    world.booked();
    return world;
  };
  const read = (world: World, more: object) => {
    const view = look(world.hogar, incoming, { ...longestFirst, ...more }, office);
    return view.ok ? view.value : null;
  };

  it("comes page by page, each once", () => {
    const world = three();
    const pages = [0, 1, 2].map((page) => read(world, { size: 1, page })!);
    expect(new Set(pages.flatMap((p) => p.rows.map((e) => e.key))).size).toBe(3);
    expect(pages.map((p) => p.count)).toEqual([3, 3, 3]);
  });

  it("is found by any part of a name, in an order of choice", () => {
    const world = three();
    expect(read(world, { search: "tallow" })!.rows.map((e) => e.name)).toEqual(["Ines Tallow"]);
    expect(read(world, { sort: "name", descending: true })!.rows.map((e) => e.name)[0]).toBe("Selma Vance");
  });

  it("is counted as a whole, whatever is looked for", () => {
    expect(read(three(), { search: "nobody like this" })).toMatchObject({ rows: [], count: 0, forUs: 3, away: 0 });
  });
});
