import { firstPage } from "@/ui/first-page";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { money } from "@/modules/money/views/money";
import { myVisit } from "@/modules/my-visit/views/my-visit";
import { saveWithheld } from "@/modules/messages/operations/save-reach";
import { runDue } from "@/worker/loop";
import { office, one, smallWorld, system } from "@demo/small-world";
import { keepApart, mergeCustomers, splitCustomers } from "./operations/same-person";
import { customers } from "@/modules/customers/views/customers";
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

describe("what was agreed with two who are merged", () => {
  const two = () => {
    const world = smallWorld();
    const keep = world.booked(as("Mira Okonjo", "home@example.com", "+1 202 555 0142")).actor.customerId;
    const gone = world.booked({ nth: 12, ...as("Anton Okonjo", "home@example.com", "+1 202 555 0143") }).actor
      .customerId;
    const set = (id: number, columns: string) =>
      world.hogar.store.db
        .transaction(() =>
          world.hogar.store.audit.under({ at: 1, actor: "test", operation: "terms" }, () =>
            world.hogar.store.sql(`UPDATE customers SET ${columns} WHERE id = ?`).run(id),
          ),
        )
        .immediate();
    const termsOf = (id: number) =>
      one(
        world.hogar,
        "SELECT bill_name, tax_kind, tax_number, payment_days, language, reminders, offers, collect_never FROM customers WHERE id = ?",
        id,
      );
    return { world, keep, gone, set, termsOf };
  };

  it("is taken over where only one of them has agreed it, and the stricter consent counts; all of it can be taken back", () => {
    const { world, keep, gone, set, termsOf } = two();
    set(keep, "offers = 1, reminders = 1");
    set(
      gone,
      "bill_name = 'Okonjo & Co', tax_kind = 'reverse charge', tax_number = 'XX1', payment_days = 30, language = 'es', reminders = 0, collect_never = 1",
    );
    mustPerform(
      world.hogar,
      saveWithheld,
      { customerId: gone, purpose: "reminders", channel: "text", wanted: false },
      office,
    );
    const before = termsOf(keep);
    const { pairId } = mustPerform(world.hogar, mergeCustomers, { keepId: keep, goneId: gone }, office);
    expect(termsOf(keep)).toEqual({
      bill_name: "Okonjo & Co",
      tax_kind: "reverse charge",
      tax_number: "XX1",
      payment_days: 30,
      language: "es",
      reminders: 0,
      offers: 0,
      collect_never: 1,
    });
    expect(one(world.hogar, "SELECT count(*) AS n FROM withheld WHERE customer_id = ?", keep)).toEqual({ n: 1 });
    mustPerform(world.hogar, splitCustomers, { pairId }, office);
    expect(termsOf(keep)).toEqual(before);
    expect(one(world.hogar, "SELECT count(*) AS n FROM withheld WHERE customer_id = ?", keep)).toEqual({ n: 0 });
  });

  it("is put side by side where both have, and counts as it is chosen", () => {
    const { world, keep, gone, set, termsOf } = two();
    set(keep, "payment_days = 14, language = 'en'");
    set(gone, "payment_days = 30, language = 'es'");
    expect(pairs(world).open[0]!.terms).toMatchObject([
      { group: "days to pay", words: ["14 days, from the invoice", "30 days, from the invoice"] },
      { group: "language", words: ["English", "Español"] },
    ]);
    mustPerform(world.hogar, mergeCustomers, { keepId: keep, goneId: gone, takes: ["days to pay"] }, office);
    expect(termsOf(keep)).toMatchObject({ payment_days: 30, language: "en" });
  });
});

it("those who are alike in everything are named together, to be joined with one press", () => {
  const world = smallWorld();
  const typed = { name: "Mira Okonjo", mail: "mira@example.com", phone: "+1 202 555 0142", reminders: true };
  const first = world.booked({ nth: 12, more: { customer: typed } }).actor.customerId;
  const again = world.booked({ nth: 12, more: { customer: typed } }).actor.customerId;
  world.booked({ nth: 14, more: { customer: { ...typed, phone: "+1 202 555 0199" } } });
  expect(pairs(world).alike).toEqual([{ keepId: first, goneId: again }]);
});
