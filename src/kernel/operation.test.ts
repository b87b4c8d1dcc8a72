import { personActor } from "@/core/people/permissions";
import { moveClock } from "@/modules/business/operations/move-clock";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { money } from "@/modules/money/views/money";
import { savePerson } from "@/modules/people/operations/save-person";
import { saveZone } from "@/modules/place/operations/save-zone";
import { saveBookingRules } from "@/modules/placing/operations/booking-rules";
import { setup } from "@/modules/setup/views/setup";
import { saveTechnician } from "@/modules/team/operations/save-technician";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { fieldDay } from "@/modules/visits/views/field";
import { runDue } from "@/worker/loop";
import { office, one, serviceInput, smallWorld, system, visitor } from "@demo/small-world";
import { mustPerform, perform } from "./operation";
import { look } from "./view";

const technician = (id: number) => personActor({ id: 9, name: "Bram Okafor", role: "technician", technicianId: id });

const bookkeeper = personActor({ id: 8, name: "Ines Varga", role: "bookkeeper", technicianId: null });

const zone = {
  id: null,
  name: "Northfield",
  postcodes: ["MW 3*"],
  weekdays: 31,
  serveFrom: 0,
  serveTo: 1440,
  noticeMinutes: 0,
  surchargeMinor: 0,
  smallestOrderMinor: 0,
};

describe("the door", () => {
  it("is the only way to change anything", () => {
    const { hogar } = smallWorld();
    expect(() => hogar.store.db.exec("UPDATE business SET name = 'x'")).toThrow("outside an operation");
  });

  it("writes who, when, what before and after", () => {
    const { hogar } = smallWorld();
    mustPerform(hogar, saveZone, { ...zone, id: 1, name: "Harbour" }, office);
    const change = one<{ actor: string; operation: string; before: string; after: string }>(
      hogar,
      "SELECT * FROM audit_changes c JOIN audit a ON a.id = c.audit_id WHERE entity = 'zones' ORDER BY c.id DESC",
    );
    expect([change.actor, change.operation, JSON.parse(change.before).name, JSON.parse(change.after).name]).toEqual([
      "person 1 Odile Brandt",
      "save-zone",
      "Harbourside",
      "Harbour",
    ]);
  });

  it("never writes into the audit what the card service calls a card or a charge, nor where somebody came from", async () => {
    const world = smallWorld();
    const from = { address: "hash of an address", browser: "hash of a browser", network: "192.0.2.7" };
    world.booked({ serviceId: world.services.survey, card: "9900000000001006", more: { keepCard: true }, from });
    await runDue(world.hogar);
    const { card, charge } = one<{ card: string; charge: string }>(
      world.hogar,
      "SELECT (SELECT reference FROM cards) AS card, (SELECT gateway_reference FROM payments) AS charge",
    );
    const { all } = one<{ all: string }>(world.hogar, "SELECT group_concat(after, ' ') AS \"all\" FROM audit_changes");
    expect([card, charge, from.address, from.browser, from.network].filter((secret) => all.includes(secret))).toEqual(
      [],
    );
    expect(all).toContain("card ending 1006");
  });

  it("never writes a password into the audit", () => {
    const { hogar } = smallWorld();
    mustPerform(
      hogar,
      savePerson,
      {
        id: null,
        name: "Tomas Quill",
        mail: "tomas@example.com",
        role: "dispatcher",
        password: "a long password",
        technicianId: null,
        active: true,
      },
      office,
    );
    expect(one(hogar, "SELECT count(*) AS n FROM audit_changes WHERE after LIKE '%argon2%'")).toEqual({ n: 0 });
  });

  it("changes nothing when an operation is refused half-way", () => {
    const { hogar } = smallWorld();
    const before = one(hogar, "SELECT count(*) AS n FROM audit_changes");
    expect(perform(hogar, saveZone, { ...zone, name: "harbourside" }, office)).toMatchObject({
      problem: { code: "name-taken", fields: { "/name": expect.any(String) } },
    });
    expect(one(hogar, "SELECT count(*) AS n FROM audit_changes")).toEqual(before);
  });

  it("refuses hostile input with a sentence", () => {
    const { hogar } = smallWorld();
    for (const input of [
      null,
      7,
      "x",
      [],
      { id: "1; DROP TABLE zones" },
      { ...zone, name: "x".repeat(10_000) },
      { ...zone, extra: 1 },
      { ...zone, weekdays: 1.5 },
    ])
      expect(perform(hogar, saveZone, input, office)).toMatchObject({ ok: false, problem: { code: "invalid-input" } });
  });
});

describe("who may do what", () => {
  it("is checked in the operations, for every role", () => {
    const { hogar, technicians } = smallWorld();
    const codes = [visitor, bookkeeper, technician(technicians[0]!), office].map((actor) => {
      const result = perform(hogar, saveZone, zone, actor);
      return result.ok ? "done" : result.problem.code;
    });
    expect(codes).toEqual(["not-signed-in", "not-allowed", "not-allowed", "done"]);
  });

  it("is checked in the views too", () => {
    const { hogar, technicians } = smallWorld();
    expect(look(hogar, money, {}, technician(technicians[0]!))).toMatchObject({ problem: { code: "not-allowed" } });
    expect(look(hogar, setup, {}, bookkeeper)).toMatchObject({ problem: { code: "not-allowed" } });
    expect(look(hogar, money, {}, bookkeeper).ok).toBe(true);
  });

  it("lets a technician see and do only what stands on the own list", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    const { technician_id } = one<{ technician_id: number }>(world.hogar, "SELECT * FROM placements");
    const other = world.technicians.find((id) => id !== technician_id)!;
    world.at("2027-03-10", 500);
    const seen = [technician_id, other]
      .map((id) => look(world.hogar, fieldDay, {}, technician(id)))
      .map((r) => r.ok && r.value.stops.map((s) => s.id));
    expect(seen).toEqual([[visitId], []]);
    world.onTheDayOf(visitId);
    expect(perform(world.hogar, advanceVisit, { visitId, to: "on the way" }, technician(other))).toMatchObject({
      problem: { code: "not-your-visit" },
    });
    expect(perform(world.hogar, advanceVisit, { visitId, to: "on the way" }, technician(technician_id)).ok).toBe(true);
  });

  it("keeps the steps of a visit in order, and takes the same step twice for one", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    world.onTheDayOf(visitId);
    const go = (to: "on the way" | "on site" | "done") => perform(world.hogar, advanceVisit, { visitId, to }, office);
    expect(go("done")).toMatchObject({ problem: { code: "wrong-order" } });
    expect([go("on the way").ok, go("on the way").ok, go("on site").ok, go("done").ok, go("done").ok]).toEqual([
      true,
      true,
      true,
      true,
      true,
    ]);
    expect(one(world.hogar, "SELECT count(*) AS n FROM invoices")).toEqual({ n: 1 });
  });
});

describe("set-up", () => {
  it("says which span of which day overlaps", () => {
    const { hogar } = smallWorld();
    const hours = [
      { weekday: 0, opens: 480, closes: 720 },
      { weekday: 0, opens: 700, closes: 900 },
    ];
    expect(
      perform(
        hogar,
        saveTechnician,
        { id: null, name: "Hanna Sorel", phone: "+1 555 0114", skills: [], hours },
        office,
      ),
    ).toMatchObject({ problem: { fields: { "/hours/1": "This overlaps 08:00 to 12:00 of the same day." } } });
  });

  it("refuses a deposit larger than the price, and a window that ends before it begins", () => {
    const { hogar } = smallWorld();
    const service = {
      id: null,
      code: "xx",
      name: "X",
      category: "X",
      description: "",
      priceMinor: 100,
      taxBp: 0,
      minutes: 30,
      beforeMinutes: 0,
      afterMinutes: 0,
      crew: 1,
      skills: [],
      deposit: { kind: "fixed", value: 200 } as const,
      active: true,
    };
    expect(perform(hogar, saveService, service, office)).toMatchObject({
      problem: { fields: { "/deposit/value": expect.stringContaining("larger than the price") } },
    });
    expect(
      perform(
        hogar,
        saveBookingRules,
        {
          windows: [{ kind: "window", weekdays: 1, from: 600, to: 540 }],
          noticeMinutes: 0,
          horizonDays: 30,
          holdMinutes: 10,
        },
        office,
      ),
    ).toMatchObject({ problem: { fields: { "/windows/0": "A window ends after it begins." } } });
  });

  it("never changes what was agreed", () => {
    const world = smallWorld();
    const { jobId, visitId } = world.booked();
    mustPerform(
      world.hogar,
      saveService,
      {
        ...serviceInput,
        id: world.services.sweep,
        code: "SW",
        name: "Chimney sweep",
        priceMinor: 9900,
        taxBp: 1300,
        minutes: 90,
      },
      office,
    );
    expect(one(world.hogar, "SELECT total_minor FROM jobs WHERE id = ?", jobId)).toEqual({ total_minor: 7900 });
    expect(one(world.hogar, "SELECT minutes FROM visits WHERE id = ?", visitId)).toEqual({ minutes: 60 });
  });
});

describe("the clock", () => {
  it("can be moved in a demo only, and forward only", () => {
    const { hogar } = smallWorld();
    expect(perform(hogar, moveClock, { minutes: -5 }, office).ok).toBe(false);
    mustPerform(hogar, moveClock, { minutes: 60 }, office);
    hogar.store.audit.under({ at: 0, actor: "test", operation: "test" }, () =>
      hogar.store.db.exec("UPDATE business SET demo_offset_ms = NULL"),
    );
    expect(perform(hogar, moveClock, { minutes: 60 }, system)).toMatchObject({ problem: { code: "not-a-demo" } });
  });
});

it("what changes nothing leaves nothing in the audit, however often it is looked at", async () => {
  const { hogar } = smallWorld();
  const entries = () => one<{ n: number }>(hogar, "SELECT count(*) AS n FROM audit").n;
  // Its zone is new: whose customers they are is looked at once.
  await runDue(hogar);
  const before = entries();
  for (let i = 0; i < 5; i++) await runDue(hogar);
  expect(entries()).toBe(before);
});
