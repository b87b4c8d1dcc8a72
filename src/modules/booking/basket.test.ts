import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { offers as offersView } from "@/modules/front-door/views/front-door";
import { removeCard } from "@/modules/money/operations/cards";
import { payByCard } from "@/modules/money/operations/pay-by-card";
import { myVisit } from "@/modules/my-visit/views/my-visit";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { runDue } from "@/worker/loop";
import { office, one, serviceInput, smallWorld, visitor, system } from "@demo/small-world";

const good = "9900000000001006";

describe("a booking of several services", () => {
  it("is one visit with one price, one deposit and one title", () => {
    const world = smallWorld();
    const { sweep, survey } = world.services;
    const { jobId, actor } = world.booked({
      items: [{ serviceId: sweep, quantity: 2 }, { serviceId: survey }],
      card: good,
    });
    expect(one(world.hogar, "SELECT title, minutes, service_id, also FROM visits WHERE job_id = ?", jobId)).toEqual({
      title: "2 × Chimney sweep, Camera survey",
      minutes: 210,
      service_id: sweep,
      also: `[${survey}]`,
    });
    expect(one(world.hogar, "SELECT total_minor, deposit_minor FROM jobs WHERE id = ?", jobId)).toEqual({
      total_minor: 2 * 7900 + 16_000,
      deposit_minor: 4000,
    });
    const view = look(world.hogar, myVisit, {}, actor);
    expect(view).toMatchObject({ ok: true, value: { job: { service: "2 × Chimney sweep, Camera survey" } } });
  });

  it("is offered only where somebody may do all of it", () => {
    const world = smallWorld();
    const [bram, petra] = world.technicians;
    const only = (code: string, name: string, technicians: number[]) =>
      mustPerform(
        world.hogar,
        saveService,
        {
          id: null,
          code,
          name,
          category: "Other",
          description: "",
          priceMinor: 1000,
          taxBp: 0,
          minutes: 30,
          beforeMinutes: 0,
          afterMinutes: 0,
          crew: 1,
          skills: [],
          deposit: { kind: "none", value: 0 },
          active: true,
          technicians,
        },
        office,
      ).id;
    const [one_, other, both] = [
      only("AA", "Gutter", [bram!]),
      only("BB", "Alarm", [petra!]),
      only("CC", "Look", [bram!, petra!]),
    ];
    const offered = (...services: number[]) =>
      look(
        world.hogar,
        offersView,
        { addressId: world.addresses[10]!.id, items: services.map((serviceId) => ({ serviceId })) },
        visitor,
      );
    expect(offered(one_, other)).toEqual({ ok: true, value: { windows: [], next: null } });
    expect(offered(one_, both)).toMatchObject({
      ok: true,
      value: { windows: expect.arrayContaining([expect.objectContaining({ date: "2027-03-10" })]) },
    });
  });

  it("counts against the limit of each of its services", () => {
    const world = smallWorld();
    const { sweep, guard } = world.services;
    mustPerform(
      world.hogar,
      saveService,
      {
        ...serviceInput,
        id: guard,
        code: "BG",
        name: "Bird guard fitted",
        priceMinor: 14_500,
        minutes: 60,
        limits: { window: null, day: 1, week: null },
      },
      office,
    );
    const first = world.booked({ items: [{ serviceId: sweep }, { serviceId: guard }] });
    const { date } = one<{ date: string }>(world.hogar, "SELECT date FROM visits WHERE id = ?", first.visitId);
    expect(world.offers(guard).some((offer) => offer.date === date)).toBe(false);
    expect(world.offers(sweep).some((offer) => offer.date === date)).toBe(true);
  });

  it("refuses work of several days beside something else, with a sentence", () => {
    const world = smallWorld();
    const reline = mustPerform(
      world.hogar,
      saveService,
      {
        id: null,
        code: "RL",
        name: "Flue relined",
        category: "Other",
        description: "",
        priceMinor: 90_000,
        taxBp: 0,
        minutes: 300,
        beforeMinutes: 0,
        afterMinutes: 0,
        crew: 1,
        skills: [],
        deposit: { kind: "none", value: 0 },
        active: true,
        days: 2,
      },
      office,
    ).id;
    const [window] = world.offers();
    expect(world.book({ window, items: [{ serviceId: world.services.sweep }, { serviceId: reline }] })).toMatchObject({
      problem: { fields: { "/items": "Flue relined takes several days. Book it on its own." } },
    });
  });
});

describe("while booking", () => {
  it("customers have it come again as often as every service lets, and no other way", () => {
    const world = smallWorld();
    const sweepWith = (repeats: { every: number; unit: "week" | "year" }[]) =>
      mustPerform(
        world.hogar,
        saveService,
        {
          ...serviceInput,
          id: world.services.sweep,
          code: "SW",
          name: "Chimney sweep",
          priceMinor: 7900,
          minutes: 60,
          repeats,
        },
        office,
      );
    sweepWith([{ every: 1, unit: "year" }]);
    expect(world.book({ more: { repeat: { every: 1, unit: "week" } } })).toMatchObject({
      problem: { fields: { "/repeat": expect.any(String) } },
    });
    const { actor } = world.booked({ more: { repeat: { every: 1, unit: "year" } } });
    expect(one(world.hogar, "SELECT rule, start_date, state FROM repeats")).toEqual({
      rule: "FREQ=YEARLY",
      start_date: "2027-03-10",
      state: "active",
    });
    expect(look(world.hogar, myVisit, {}, actor)).toMatchObject({ value: { coming: [{ date: "2028-03-10" }] } });
    expect(
      world.book({
        items: [{ serviceId: world.services.sweep }, { serviceId: world.services.guard }],
        more: { repeat: { every: 1, unit: "year" } },
      }),
    ).toMatchObject({ ok: false });
  });

  it("what one agrees to is kept with the words that were shown, and a second booking without the tick takes nothing back", () => {
    const world = smallWorld();
    world.booked({
      as: system,
      more: {
        customer: {
          name: "Mira Okonjo",
          mail: "mira@example.com",
          phone: "+1 555 0142",
          reminders: true,
          offers: true,
        },
      },
    });
    world.booked({
      as: system,
      more: {
        customer: {
          name: "Mira Okonjo",
          mail: "mira@example.com",
          phone: "+1 555 0142",
          reminders: false,
          offers: false,
        },
      },
    });
    expect(world.hogar.store.sql("SELECT kind, given, words FROM consents").all()).toEqual([
      { kind: "reminders", given: 1, words: "Remind me before the visit, by email and text." },
      {
        kind: "offers",
        given: 1,
        words: "Marrowick Hearth & Flue may write to me about offers. I can end this at any time.",
      },
    ]);
    expect(one(world.hogar, "SELECT reminders, offers FROM customers")).toEqual({ reminders: 1, offers: 1 });
  });

  it("a card is kept where one ticks it, pays later without being typed again, and goes when it is taken away", async () => {
    const world = smallWorld();
    const { actor, visitId, jobId } = world.booked({
      serviceId: world.services.survey,
      card: good,
      more: { keepCard: true },
    });
    await runDue(world.hogar);
    expect(one(world.hogar, "SELECT label, removed_at FROM cards")).toEqual({
      label: "card ending 1006",
      removed_at: null,
    });
    world.at("2027-03-10", 600);
    for (const to of ["on site", "done"] as const) mustPerform(world.hogar, advanceVisit, { visitId, to }, office);
    mustPerform(world.hogar, payByCard, { purpose: "invoice", cardToken: null }, actor);
    await runDue(world.hogar);
    expect(
      one(world.hogar, "SELECT sum(amount_minor) AS paid FROM payments WHERE job_id = ? AND state = 'received'", jobId),
    ).toEqual({ paid: 16_000 });
    const { id: cardId } = one<{ id: number }>(world.hogar, "SELECT id FROM cards WHERE removed_at IS NULL");
    mustPerform(world.hogar, removeCard, { cardId }, actor);
    expect(look(world.hogar, myVisit, {}, actor)).toMatchObject({ value: { cards: [] } });
    expect(
      one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM consents WHERE kind = 'card on file' AND given = 0").n,
    ).toBe(1);
    expect(perform(world.hogar, removeCard, { cardId }, actor).ok).toBe(false);
  });

  it("a card that is declined is not kept; the next one that pays takes the place of the one before", async () => {
    const world = smallWorld();
    const { actor } = world.booked({
      serviceId: world.services.survey,
      card: "9900000000002004",
      more: { keepCard: true },
    });
    await runDue(world.hogar);
    const kept = () =>
      world.hogar.store
        .sql<{ label: string }>("SELECT label FROM cards WHERE removed_at IS NULL")
        .all()
        .map((c) => c.label);
    expect([kept(), world.hogar.store.sql("SELECT 1 FROM consents WHERE kind = 'card on file'").all()]).toEqual([
      [],
      [],
    ]);
    const pay = async (purpose: "deposit" | "invoice", number: string) => {
      mustPerform(
        world.hogar,
        payByCard,
        { purpose, cardToken: world.hogar.standins!.cards.tokenFor(number)!, keepCard: true },
        actor,
      );
      await runDue(world.hogar);
    };
    await pay("deposit", good);
    expect([
      kept(),
      one(world.hogar, "SELECT count(*) AS left_behind FROM payments WHERE keep_token IS NOT NULL"),
    ]).toEqual([["card ending 1006"], { left_behind: 0 }]);
    world.at("2027-03-10", 600);
    for (const to of ["on site", "done"] as const)
      mustPerform(
        world.hogar,
        advanceVisit,
        { visitId: one<{ id: number }>(world.hogar, "SELECT id FROM visits").id, to },
        office,
      );
    await pay("invoice", good);
    expect(kept()).toEqual(["card ending 1006"]);
    const { id: cardId } = one<{ id: number }>(world.hogar, "SELECT id FROM cards WHERE removed_at IS NULL");
    mustPerform(world.hogar, removeCard, { cardId }, actor);
    expect(look(world.hogar, myVisit, {}, actor)).toMatchObject({ value: { cards: [] } });
  });

  it("an address that the look-up does not know is placed by its postcode, or refused", () => {
    const world = smallWorld();
    const { postcode } = world.addresses[10]!;
    const typed = (line: string, code: string) =>
      `typed.${Buffer.from(JSON.stringify({ line, postcode: code })).toString("base64url")}`;
    const { jobId } = world.booked({ more: { addressId: typed("The Old Boathouse", postcode) } });
    expect(
      one(world.hogar, "SELECT s.line, s.postcode FROM sites s JOIN jobs j ON j.site_id = s.id WHERE j.id = ?", jobId),
    ).toEqual({ line: "The Old Boathouse", postcode });
    for (const bad of [
      typed("The Old Boathouse", "ZZ 9"),
      "typed.%%%",
      `typed.${Buffer.from("[1]").toString("base64url")}`,
    ])
      expect(world.book({ more: { addressId: bad } })).toMatchObject({
        problem: { fields: { "/addressId": expect.any(String) } },
      });
  });

  it("a phone number that cannot be one is refused, and others are kept tidy", () => {
    const world = smallWorld();
    const withPhone = (phone: string) =>
      world.book({ more: { customer: { name: "Anton Lund", mail: "anton@example.com", phone, reminders: false } } });
    expect(withPhone("12-34-5")).toMatchObject({
      problem: { fields: { "/customer/phone": "Write a phone number, such as +1 555 0142." } },
    });
    expect(withPhone("(202) 555-0142").ok).toBe(true);
    expect(one(world.hogar, "SELECT phone FROM customers WHERE name = 'Anton Lund'")).toEqual({
      phone: "+1 202 555 0142",
    });
  });
});
