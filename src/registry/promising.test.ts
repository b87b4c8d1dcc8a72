import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { settleUnkept } from "@/modules/placing/operations/settle-unkept";
import { unkeptPromises } from "@/modules/placing/unkept";
import { viewContext } from "@/kernel/operation";
import { ownViews } from "@/registry/modules";
import { office, one, serviceInput, smallWorld } from "@demo/small-world";
import { promisingOperations } from "./promising";
import { touchedPromises } from "./touched-promises";

type World = ReturnType<typeof smallWorld>;
type Name = keyof typeof promisingOperations;

const skills = [{ name: "sweep", level: 1, validUntil: null }];
const hours = (opens: number, closes: number) => [0, 1, 2, 3, 4].map((weekday) => ({ weekday, opens, closes }));
const zone = {
  name: "Harbourside",
  postcodes: ["MW 1*"],
  weekdays: 127,
  serveFrom: 0,
  serveTo: 1440,
  noticeMinutes: 0,
  surchargeMinor: 0,
  smallestOrderMinor: 0,
};
const closed = { id: null, name: "Rebuilding", first: "2027-03-10", last: "2027-03-10", yearly: false, spans: [] };

/** A booking on 10 March from nine, and whoever is to come. */
function booked() {
  const world = smallWorld();
  const { visitId } = world.booked();
  const { id } = one<{ id: number }>(world.hogar, "SELECT technician_id AS id FROM placements");
  const { name } = one<{ name: string }>(world.hogar, "SELECT name FROM technicians WHERE id = ?", id);
  const technician = { id, name, phone: "+1 555 0111", skills, hours: hours(480, 1020) };
  return { world, visitId, technician };
}
const touched = (world: World, operation: Name, change: unknown) => {
  const result = look(world.hogar, touchedPromises, { operation, change }, office);
  if (!result.ok) throw new Error(result.problem.sentence);
  return result.value;
};
const waiting = (world: World) => unkeptPromises(viewContext(world.hogar, office), 10).first;
const needs = (world: World) => {
  const result = look(world.hogar, ownViews.today, {}, office);
  if (!result.ok) throw new Error(result.problem.sentence);
  return result.value.needs.filter(({ kind }) => kind === "unkept");
};

it.each([
  ["hours are cut", "save-technician", { hours: hours(780, 1020) }, "does not work that day"],
  ["a skill is taken", "save-technician", { skills: [] }, "does not have the skill"],
  ["a skill ends", "save-technician", { skills: [{ ...skills[0]!, validUntil: "2027-03-09" }] }, "only until 9 March"],
  ["a technician does less", "save-technician", { mostMinutes: 30 }, "would go over 30 min"],
  ["a zone is served on other days", "save-zone", { ...zone, id: 1, weekdays: 1 }, "not served on Wednesdays"],
  ["a zone goes to others", "save-zone", { ...zone, id: 1, technicians: "the other" }, "does not go to this zone"],
  ["a zone is set aside", "set-zone-aside", { id: 1 }, "outside our zones"],
  ["the business closes", "save-special-day", closed, "we are closed that day, Rebuilding"],
  ["the business opens later", "save-opening", { hours: hours(780, 1020) }, "we are not open then"],
] as const)("says before it is done which promise cannot be kept where %s", (_, operation, change, why) => {
  const { world, visitId, technician } = booked();
  const other = world.technicians.find((id) => id !== technician.id)!;
  const whole = {
    ...(operation === "save-technician" && technician),
    ...change,
    ...("technicians" in change && { technicians: [other] }),
  };
  expect(touched(world, operation, whole)).toMatchObject({
    n: 1,
    promises: [{ visitId, customer: "Mira Okonjo", why: expect.stringContaining(why) }],
  });
  // It was looked at, and not done.
  expect(waiting(world)).toEqual([]);
  mustPerform(world.hogar, promisingOperations[operation] as never, whole as never, office);
  expect(waiting(world)).toMatchObject([{ visitId }]);
  expect(needs(world)).toHaveLength(1);
});

it("says nothing of a change that touches no promise, nor of what did not fit before", () => {
  const { world, technician } = booked();
  expect(touched(world, "save-technician", { ...technician, phone: "+1 555 0122" })).toEqual({ n: 0, promises: [] });
  mustPerform(world.hogar, promisingOperations["save-special-day"], closed, office);
  expect(touched(world, "save-opening", { hours: hours(780, 1020) }).n).toBe(0);
  const service = { ...serviceInput, id: world.services.sweep, code: "SW", name: "Sweep", priceMinor: 1, minutes: 90 };
  expect(touched(world, "save-service", service).n).toBe(0);
});

describe("what becomes of it", () => {
  const cut = () => {
    const all = booked();
    mustPerform(
      all.world.hogar,
      promisingOperations["save-technician"],
      { ...all.technician, hours: hours(780, 1020) },
      office,
    );
    const settle = (how: "keep" | "tray" | "other") =>
      mustPerform(all.world.hogar, settleUnkept, { visitId: all.visitId, how }, office);
    const who = () =>
      all.world.hogar.store
        .sql<{ technician_id: number }>("SELECT technician_id FROM placements")
        .all()
        .map((row) => row.technician_id);
    return { ...all, settle, who };
  };

  it("is kept all the same", () => {
    const { world, technician, settle, who } = cut();
    settle("keep");
    expect([who(), waiting(world), needs(world)]).toEqual([[technician.id], [], []]);
  });
  it("waits in the tray", () => {
    const { world, settle, who } = cut();
    settle("tray");
    expect([who(), waiting(world)]).toEqual([[], []]);
  });
  it("goes to whoever can keep its window, and its customer need not be told", () => {
    const { world, technician, settle, who } = cut();
    const before = one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM messages").n;
    settle("other");
    expect(who()).toEqual(world.technicians.filter((id) => id !== technician.id));
    expect([waiting(world), one(world.hogar, "SELECT count(*) AS n FROM messages")]).toEqual([[], { n: before }]);
  });
  it("is asked of nothing else: what no change has touched keeps its technician", () => {
    const { world, visitId } = booked();
    expect(perform(world.hogar, settleUnkept, { visitId, how: "tray" }, office)).toMatchObject({
      problem: { code: "visit-not-open" },
    });
    expect(one(world.hogar, "SELECT count(*) AS n FROM placements")).toEqual({ n: 1 });
  });
  it("is settled by itself where it fits again", () => {
    const { world, technician } = cut();
    mustPerform(world.hogar, promisingOperations["save-technician"], technician, office);
    expect([waiting(world), needs(world)]).toEqual([[], []]);
  });
});
