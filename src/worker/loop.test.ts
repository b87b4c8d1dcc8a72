import { mustPerform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { makeRepeat } from "@/modules/repeats/operations/repeats";
import { ownViews } from "@/registry/modules";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { office, one, smallWorld } from "@demo/small-world";
import type { ScheduledJob } from "@/kernel/scheduled";
import { jobs } from "./jobs";
import { makeRounds, runDue } from "./loop";
import { prune } from "./pruning";

type World = ReturnType<typeof smallWorld>;

/** Changes the data past the door, as a fault would. */
const damage = ({ hogar }: World, change: string) =>
  hogar.store.audit.under({ at: 0, actor: "test", operation: "damage" }, () => hogar.store.db.exec(change));
const count = ({ hogar }: World, query: string) => one<{ n: number }>(hogar, `SELECT count(*) AS n FROM ${query}`).n;
const needs = ({ hogar }: World) => {
  const result = look(hogar, ownViews.today, {}, office);
  return result.ok ? result.value.needs : [];
};

let logged: jest.SpyInstance;
beforeEach(() => (logged = jest.spyOn(console, "error").mockImplementation(() => {})));
afterEach(() => logged.mockRestore());

/** Two customers whose sweep comes back every four weeks; the first one's repeat can no longer be read. */
function withBadRepeat(): { world: World; bad: number; good: number } {
  const world = smallWorld();
  const [bad, good] = [world.booked(), world.booked({ name: "Anton Lund", nth: 12 })].map(
    ({ visitId }) => mustPerform(world.hogar, makeRepeat, { visitId, rule: "FREQ=WEEKLY;INTERVAL=4" }, office).repeatId,
  ) as [number, number];
  damage(
    world,
    `UPDATE repeats SET items = '[{"serviceId":999,"quantity":1,"answers":{},"extras":[]}]', grow_on = NULL WHERE id = ${bad}`,
  );
  damage(
    world,
    `DELETE FROM placements WHERE visit_id IN (SELECT id FROM visits WHERE state = 'forecast'); DELETE FROM visits WHERE state = 'forecast'; UPDATE repeats SET grow_on = NULL`,
  );
  return { world, bad, good };
}

describe("a job of the worker that throws", () => {
  it("stops neither the outbox nor the jobs after it", async () => {
    const world = smallWorld();
    world.booked();
    const ran: string[] = [];
    const broken: ScheduledJob = {
      name: "broken",
      order: 0,
      everyMs: 0,
      run: () => {
        throw new Error("broken");
      },
    };
    const after: ScheduledJob = {
      name: "after",
      order: 0,
      everyMs: 0,
      run: () => {
        ran.push("after");
        return null;
      },
    };
    await makeRounds(world.hogar, [jobs[0]!, broken, after]).turn();
    expect([count(world, "messages WHERE state = 'sent'"), ran]).toEqual([1, ["after"]]);
  });

  it("comes after the outbox, whatever it is", () => {
    expect(jobs[0]!.name).toBe("outbox");
  });
});

describe("a repeat that cannot be read", () => {
  it("does not keep the others from growing, nor messages from leaving", async () => {
    const { world, good } = withBadRepeat();
    await runDue(world.hogar);
    expect([
      count(world, `visits WHERE repeat_id = ${good} AND state = 'forecast'`),
      count(world, "messages WHERE state = 'waiting'"),
    ]).toEqual([15, 0]);
  });

  it("is told to a person on Today, with the reason", async () => {
    const { world } = withBadRepeat();
    await runDue(world.hogar);
    expect(needs(world).filter((n) => n.kind === "stuck")).toMatchObject([
      {
        words: expect.stringContaining("The repeat of Mira Okonjo"),
        detail: expect.stringContaining("cannot be booked"),
      },
    ]);
  });

  it("is tried again when it has changed, and not before", async () => {
    const { world, bad } = withBadRepeat();
    await runDue(world.hogar);
    const failedAt = () => one<{ failed_at: number }>(world.hogar, "SELECT failed_at FROM failed_work")?.failed_at;
    const first = failedAt();
    world.later(90);
    await runDue(world.hogar);
    expect(failedAt()).toBe(first);
    damage(
      world,
      `UPDATE repeats SET items = '[{"serviceId":${world.services.sweep},"quantity":1,"answers":{},"extras":[]}]' WHERE id = ${bad}`,
    );
    await runDue(world.hogar);
    expect([failedAt(), count(world, `visits WHERE repeat_id = ${bad} AND state = 'forecast'`)]).toEqual([
      undefined,
      15,
    ]);
  });
});

describe("repeats with nothing new", () => {
  it("are not looked at, and write nothing", async () => {
    const world = smallWorld();
    mustPerform(world.hogar, makeRepeat, { visitId: world.booked().visitId, rule: "FREQ=YEARLY" }, office);
    await runDue(world.hogar);
    const entries = count(world, "audit");
    world.later(30);
    await runDue(world.hogar);
    expect(count(world, "audit WHERE operation = 'grow-repeat'")).toBeLessThanOrEqual(1);
    expect(count(world, "audit")).toBe(entries);
  });

  it("are looked at again when a day on which one has no room has changed", async () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    damage(world, "UPDATE technicians SET active = 0");
    const { repeatId } = mustPerform(world.hogar, makeRepeat, { visitId, rule: "FREQ=YEARLY" }, office);
    const placed = () =>
      count(
        world,
        `placements WHERE visit_id IN (SELECT id FROM visits WHERE repeat_id = ${repeatId} AND state = 'forecast')`,
      );
    await runDue(world.hogar);
    expect(placed()).toBe(0);
    damage(world, "UPDATE technicians SET active = 1");
    await runDue(world.hogar);
    expect(placed()).toBe(1);
  });
});

describe("reminders", () => {
  it("are written once, and not looked at again afterwards", async () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    world.onTheDayOf(visitId);
    for (const to of ["on the way", "on site", "done"] as const)
      mustPerform(world.hogar, advanceVisit, { visitId, to }, office);
    world.at("2027-04-20", 600);
    await runDue(world.hogar);
    expect([
      count(world, "messages WHERE occasion LIKE 'last reminder%' AND channel = 'mail'"),
      count(world, "invoices WHERE remind_on <= '2027-04-20'"),
    ]).toEqual([1, 0]);
  });

  it("come again for a visit that is moved to another window", async () => {
    const world = smallWorld();
    const { visitId } = world.booked({ window: world.offers().at(-1) as never });
    world.at("2027-03-11", 600);
    const { window_from } = one<{ window_from: number }>(
      world.hogar,
      "SELECT window_from FROM visits WHERE id = ?",
      visitId,
    );
    const reminders = () => count(world, "messages WHERE occasion LIKE 'visit reminder%'");
    for (let hours = 0; hours < 26 && reminders() === 0; hours++) {
      await runDue(world.hogar);
      world.later(60);
    }
    damage(
      world,
      `UPDATE visits SET date = '2027-03-15', window_from = ${window_from + 3 * 1440}, window_to = window_to + ${3 * 1440} WHERE id = ${visitId}`,
    );
    world.at("2027-03-14", 1000);
    await runDue(world.hogar);
    expect(reminders()).toBe(2);
  });
});

describe("what is kept no longer", () => {
  it("is what rows were before and after; who changed what, and when, stays", () => {
    const world = smallWorld();
    const { jobId } = world.booked();
    const changes = () =>
      one<{ n: number; told: number }>(
        world.hogar,
        "SELECT count(*) AS n, count(after) AS told FROM audit_changes WHERE entity = 'jobs' AND row_key = ?",
        String(jobId),
      );
    const before = changes();
    world.at("2027-12-31", 600);
    while (prune(world.hogar, Infinity) !== null);
    expect([before.told > 0, changes()]).toEqual([true, { n: before.n, told: 0 }]);
  });

  it("is not the history of prices", () => {
    const world = smallWorld();
    world.at("2028-12-31", 600);
    prune(world.hogar, Infinity);
    expect(count(world, "audit_changes WHERE entity = 'services' AND after IS NOT NULL")).toBeGreaterThan(0);
  });

  it("is what the outbox did long ago, and not what it has still to do", async () => {
    const world = smallWorld();
    world.booked();
    await runDue(world.hogar);
    damage(
      world,
      "INSERT INTO outbox (kind, key, payload, state, attempts, run_after) VALUES ('tell', 'later', '{}', 'ready', 0, 99999999999999)",
    );
    world.at("2027-07-31", 600);
    prune(world.hogar, Infinity);
    expect(world.hogar.store.sql("SELECT key FROM outbox").all()).toEqual([{ key: "later" }]);
  });
});

it("a visit of a booking that waits for its deposit is not driven, and neither is one of next week", () => {
  const world = smallWorld();
  const { visitId } = world.booked({ serviceId: world.services.survey, card: "9900000000001006" });
  world.onTheDayOf(visitId);
  expect(() => mustPerform(world.hogar, advanceVisit, { visitId, to: "on the way" }, office)).toThrow(
    /waits for our answer or for its deposit/,
  );
  const promised = world.booked({ name: "Anton Lund", nth: 12 });
  world.at("2027-03-09", 500);
  expect(() => mustPerform(world.hogar, advanceVisit, { visitId: promised.visitId, to: "on site" }, office)).toThrow(
    /on a day to come/,
  );
});
