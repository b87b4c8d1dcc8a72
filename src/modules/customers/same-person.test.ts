import { firstPage } from "@/ui/first-page";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { money } from "@/modules/money/views/money";
import { myVisit } from "@/modules/my-visit/views/my-visit";
import { runDue } from "@/worker/loop";
import { office, one, smallWorld, system } from "@demo/small-world";
import { keepApart, mergeCustomers, splitCustomers } from "./operations/same-person";
import { customers } from "./views/customers";
import { possibleDuplicates } from "./views/same-person";

type World = ReturnType<typeof smallWorld>;
const as = (name: string, mail: string, phone: string) => ({
  more: { customer: { name, mail, phone, reminders: true } },
  // Somebody of whom we know who they are: strangers stay apart until a code or a person has joined them.
  as: system,
});
const pairs = (world: World) => {
  const view = look(world.hogar, possibleDuplicates, {}, office);
  if (!view.ok) throw new Error(view.problem.sentence);
  return view.value;
};
const names = (world: World) => {
  const view = look(world.hogar, customers, firstPage<"customers">("name"), office);
  return view.ok ? view.value.rows.map((row) => row.name) : [];
};

describe("somebody who books again", () => {
  it("is the same customer where that is certain, and hears where they said this time", () => {
    const world = smallWorld();
    world.booked(as("Mira Okonjo", "mira@example.com", "+1 202 555 0142"));
    world.booked({ ...as("mira okonjo", "new@example.com", "(202) 555-0142"), nth: 12 });
    expect([names(world), pairs(world).open]).toEqual([["Mira Okonjo"], []]);
    expect(one(world.hogar, "SELECT recipient FROM messages WHERE channel = 'mail' ORDER BY id DESC")).toEqual({
      recipient: "new@example.com",
    });
  });

  it("is somebody of their own while they have only typed who they are, and joined by nobody but a person", () => {
    const world = smallWorld();
    world.booked(as("Mira Okonjo", "mira@example.com", "+1 202 555 0142"));
    const typed = { name: "m. okonjo", mail: "mira@example.com", phone: "+1 202 555 0142", offers: true };
    const { actor } = world.booked({ nth: 12, more: { customer: { ...typed, reminders: true } } });
    expect(names(world)).toEqual(["m. okonjo", "Mira Okonjo"]);
    expect(pairs(world).open).toHaveLength(1);
    expect(look(world.hogar, myVisit, {}, actor)).toMatchObject({ value: { again: { name: "m. okonjo" } } });
    expect(one(world.hogar, "SELECT offers FROM customers WHERE name = 'Mira Okonjo'")).toEqual({ offers: 0 });
  });

  it("never comes by what somebody else of the same mail has left: no card, no other visit", async () => {
    const world = smallWorld();
    const mira = world.booked({
      as: system,
      serviceId: world.services.survey,
      card: "9900000000001006",
      more: { keepCard: true },
    });
    await runDue(world.hogar);
    const stranger = world.booked({ as: system, nth: 12 });
    expect(one<{ n: number }>(world.hogar, "SELECT count(DISTINCT customer_id) AS n FROM jobs").n).toBe(1);
    expect([look(world.hogar, myVisit, {}, mira.actor), look(world.hogar, myVisit, {}, stranger.actor)]).toMatchObject([
      { value: { cards: [{ label: "card ending 1006" }] } },
      { value: { cards: [], job: { service: "Chimney sweep" } } },
    ]);
  });
});

describe("two who may be the same", () => {
  const couple = () => {
    const world = smallWorld();
    const first = world.booked({
      serviceId: world.services.survey,
      card: "9900000000001006",
      ...as("Mira Okonjo", "home@example.com", "+1 202 555 0142"),
    });
    world.booked({ nth: 12, ...as("Anton Okonjo", "home@example.com", "+1 202 555 0143") });
    return { world, first };
  };

  it("are put side by side, and merged take everything along; taken back, each has what was theirs", async () => {
    const { world } = couple();
    await runDue(world.hogar);
    const [pair] = pairs(world).open;
    expect(pair!.sides.map((s) => [s.name, s.visits])).toEqual([
      ["Mira Okonjo", 1],
      ["Anton Okonjo", 1],
    ]);
    const [mira, anton] = pair!.sides;
    const owners = () =>
      world.hogar.store
        .sql(
          "SELECT customer_id FROM jobs UNION ALL SELECT customer_id FROM payments UNION ALL SELECT customer_id FROM sites UNION ALL SELECT customer_id FROM messages",
        )
        .all()
        .map((row) => (row as { customer_id: number }).customer_id);
    const before = owners();
    mustPerform(world.hogar, mergeCustomers, { keepId: anton.id, goneId: mira.id }, office);
    expect([names(world), new Set(owners())]).toEqual([["Anton Okonjo"], new Set([anton.id])]);
    expect(look(world.hogar, money, {}, office)).toMatchObject({ value: { totals: { agrees: true } } });
    mustPerform(world.hogar, splitCustomers, { pairId: pair!.id }, office);
    expect([names(world), owners()]).toEqual([["Anton Okonjo", "Mira Okonjo"], before]);
    expect(pairs(world).open.map((p) => p.sides[0].id)).toEqual([mira.id]);
  });

  it("once merged are known by what they were; a merge is taken back from the last one on", () => {
    const { world } = couple();
    const [pair] = pairs(world).open;
    const [mira, anton] = pair!.sides;
    mustPerform(world.hogar, mergeCustomers, { keepId: anton.id, goneId: mira.id }, office);
    world.booked({ nth: 13, ...as("Mira Okonjo", "home@example.com", "+1 202 555 0142") });
    expect([
      names(world),
      one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM jobs WHERE customer_id = ?", anton.id).n,
    ]).toEqual([["Anton Okonjo"], 3]);
    world.booked({ nth: 15, ...as("Tilda Okonjo", "home@example.com", "+1 202 555 0144") });
    const next = pairs(world).open.find((p) => p.sides.every((s) => s.id !== mira.id))!;
    mustPerform(
      world.hogar,
      mergeCustomers,
      { keepId: next.sides.find((s) => s.id !== anton.id)!.id, goneId: anton.id },
      office,
    );
    expect(pairs(world).merged.map((m) => m.id)).toEqual([next.id]);
    expect(perform(world.hogar, splitCustomers, { pairId: pair!.id }, office)).toMatchObject({
      problem: { sentence: "These were merged with a third since. Take that back first." },
    });
    for (const pairId of [next.id, pair!.id]) mustPerform(world.hogar, splitCustomers, { pairId }, office);
    expect(names(world)).toEqual(["Anton Okonjo", "Mira Okonjo", "Tilda Okonjo"]);
  });

  it("are asked about once, where they are two", () => {
    const { world } = couple();
    const [pair] = pairs(world).open;
    mustPerform(world.hogar, keepApart, { pairId: pair!.id, apart: true }, office);
    world.booked({ nth: 14, ...as("Anton Okonjo", "home@example.com", "+1 202 555 0143") });
    expect(pairs(world).open).toEqual([]);
    mustPerform(world.hogar, keepApart, { pairId: pair!.id, apart: false }, office);
    expect(pairs(world).open).toHaveLength(1);
  });
});
