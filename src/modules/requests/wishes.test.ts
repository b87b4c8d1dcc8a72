import { sealedToken } from "@/kernel/links";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { renewLink } from "@/modules/booking/operations/renew-link";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { incoming } from "@/modules/incoming/views/incoming";
import { takeWish, withdrawWish } from "@/modules/requests/operations/wishes";
import { wish as wishView } from "@/modules/requests/views/wish";
import { saveTechnician } from "@/modules/team/operations/save-technician";
import { firstPage } from "@/ui/first-page";
import { runDue } from "@/worker/loop";
import { office, one, serviceInput, smallWorld, visitor, worldWithPost } from "@demo/small-world";

type World = ReturnType<typeof smallWorld>;

type Post = ReturnType<typeof worldWithPost>;

const service = { ...serviceInput };

const longestFirst = firstPage<"incoming">("at");

const entries = (world: World) => {
  const view = look(world.hogar, incoming, longestFirst, office);
  return view.ok ? view.value.rows : [];
};

const late = { weekdays: 127, from: 17 * 60, to: 20 * 60, until: null };

const ask = (world: World, more: object = {}) => world.asked({ wish: late, ...more });

const openEvening = (world: World) => {
  const windows = [
    { kind: "window" as const, weekdays: 31, from: 15 * 60, to: 17 * 60 },
    { kind: "window" as const, weekdays: 31, from: 17 * 60, to: 18 * 60 },
  ];
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
      deposit: { kind: "none", value: 0 },
      windows,
    },
    office,
  );
  const hours = [0, 1, 2, 3, 4].map((weekday) => ({ weekday, opens: 780, closes: 1200 }));
  for (const [i, id] of world.technicians.entries())
    mustPerform(
      world.hogar,
      saveTechnician,
      {
        id,
        name: `Technician ${i}`,
        phone: "+1 555 0111",
        skills: [{ name: "sweep", level: 1, validUntil: null }],
        hours,
      },
      office,
    );
};

const told = async (world: Post) => {
  await runDue(world.hogar);
  return world.sent.filter((m) => m.way === "mail" && m.subject.startsWith("Free now")).length;
};

describe("a wish", () => {
  it("is told once when a window that suits opens, and taken with one tap", async () => {
    const world = worldWithPost();
    const id = ask(world);
    expect(await told(world)).toBe(0);
    openEvening(world);
    expect([await told(world), await told(world)]).toEqual([1, 1]);
    const token = sealedToken(world.hogar, { kind: "wish", id: id });
    // The mail has the link; the database never.
    const { body } = world.sent.find((m) => m.subject.startsWith("Free now"))!;
    expect(body).toContain(`/wish/${token}`);
    // Nobody has shown that the address is theirs: it reads none of the words that were typed.
    expect(body).toMatch(/^Hello,\n/);
    expect(JSON.stringify(world.hogar.store.sql("SELECT payload FROM outbox").all())).not.toContain(token);
    expect(look(world.hogar, wishView, { token }, visitor)).toMatchObject({
      value: { what: "Chimney sweep", window: { time: "17–18" }, booked: null },
    });
    const { link } = mustPerform(world.hogar, takeWish, { token }, visitor);
    expect(
      one(
        world.hogar,
        "SELECT c.name, v.state FROM jobs j JOIN customers c ON c.id = j.customer_id JOIN visits v ON v.job_id = j.id",
      ),
    ).toEqual({ name: "Selma Vance", state: "promised" });
    // A second tap shows the same booking; and nobody is told of it again.
    expect(mustPerform(world.hogar, takeWish, { token }, visitor)).toEqual({ link });
    expect([await told(world), entries(world)]).toEqual([1, []]);
    // What is booked is not withdrawn; and when the office ends the link, the key of the wish ends with it.
    expect(perform(world.hogar, withdrawWish, { token }, visitor)).toMatchObject({ problem: { code: "not-found" } });
    mustPerform(world.hogar, renewLink, { jobId: 1 }, office);
    expect(look(world.hogar, wishView, { token }, visitor)).toMatchObject({ problem: { code: "link-ended" } });
  });

  it("says what it costs, and is taken at no higher price than was read", async () => {
    const world = worldWithPost();
    const token = sealedToken(world.hogar, { kind: "wish", id: ask(world) });
    openEvening(world);
    await told(world);
    const seen = look(world.hogar, wishView, { token }, visitor);
    const read = seen.ok ? seen.value.agreement! : undefined;
    expect(read).toMatchObject({ totalMinor: 7_900, nowMinor: 0 });
    const dearer = { ...service, id: world.services.sweep, code: "SW", name: "Chimney sweep", minutes: 60 };
    mustPerform(world.hogar, saveService, { ...dearer, priceMinor: 9_500 }, office);
    expect(perform(world.hogar, takeWish, { token, read }, visitor)).toMatchObject({
      problem: {
        code: "terms-changed",
        details: { changes: [{ what: "Price", before: "€79.00", now: "€95.00" }] },
      },
    });
    expect(one(world.hogar, "SELECT count(*) AS n FROM jobs")).toEqual({ n: 0 });
    mustPerform(world.hogar, takeWish, { token, read: { ...read!, totalMinor: 9_500 } }, visitor);
  });

  it("stays where somebody was faster, and ends when it is withdrawn", async () => {
    const world = worldWithPost();
    const id = ask(world, { wish: { ...late, weekdays: 4 } });
    openEvening(world);
    await told(world);
    const { told: window } = one<{ told: string }>(world.hogar, "SELECT told FROM requests WHERE id = ?", id);
    const { date, from, to } = JSON.parse(window) as { date: string; from: number; to: number };
    while (world.offers().some((o) => o.from === from)) world.booked({ window: { date, from, to }, nth: 11 });
    const token = sealedToken(world.hogar, { kind: "wish", id: id });
    expect(perform(world.hogar, takeWish, { token }, visitor)).toMatchObject({
      problem: { code: "window-gone", sentence: expect.stringContaining("You stay on our list") },
    });
    expect(await told(world)).toBe(2);
    mustPerform(world.hogar, withdrawWish, { token }, visitor);
    expect(perform(world.hogar, takeWish, { token }, visitor)).toMatchObject({ problem: { code: "link-ended" } });
  });

  it("ends with its last day: nobody is told any more, and the office reads that none came in time", async () => {
    const world = worldWithPost();
    ask(world, { wish: { ...late, until: "2027-03-11" } });
    expect(entries(world)).toMatchObject([{ waits: "no window suits", when: "any day, 17–20, until 11 March 2027" }]);
    world.at("2027-03-12", 9 * 60);
    openEvening(world);
    expect(await told(world)).toBe(0);
    expect(entries(world)).toMatchObject([{ waits: "no window came in time" }]);
  });

  it("wakes nobody: what opens at night is told in the morning, and nothing is agreed to that was not asked", async () => {
    const world = worldWithPost();
    ask(world);
    openEvening(world);
    world.at("2027-03-09", 23 * 60);
    expect(await told(world)).toBe(0);
    world.at("2027-03-10", 9 * 60);
    expect(await told(world)).toBe(1);
    const token = sealedToken(world.hogar, { kind: "wish", id: 1 });
    mustPerform(world.hogar, takeWish, { token }, visitor);
    expect([
      one(world.hogar, "SELECT reminders FROM customers"),
      world.hogar.store.sql("SELECT * FROM consents").all(),
    ]).toEqual([{ reminders: 0 }, []]);
  });

  it("is opened by its own link only", () => {
    const world = smallWorld();
    const [one_, other] = [ask(world), ask(world)];
    const forged = `${other}.${sealedToken(world.hogar, { kind: "wish", id: one_ }).split(".")[1]}`;
    for (const token of [forged, "1", "1.x", "../1", ""])
      expect(perform(world.hogar, takeWish, { token }, visitor)).toMatchObject({ problem: { code: "link-ended" } });
  });
});
