import type { Actor } from "@/core/people/permissions";
import { mustPerform, type Origin, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { giveBackRoom } from "@/modules/due/operations/give-back-room";
import { enterCodeByLink, sendCodeByLink } from "@/modules/my-visit/operations/proof";
import { myVisit } from "@/modules/my-visit/views/my-visit";
import { saveSecurity } from "@/modules/people/operations/save-security";
import { ownViews } from "@/registry/modules";
import { runDue } from "@/worker/loop";
import { office, one, saidOf, smallWorld, system, visitor, worldWithPost } from "@demo/small-world";
import { holdOffer } from "./operations/hold-offer";

type World = ReturnType<typeof smallWorld>;

/** How close the lock is set. */
const closer = (world: Pick<World, "hogar">, more: object = {}) =>
  mustPerform(
    world.hogar,
    saveSecurity,
    { unprovedEach: 2, provedEach: 1000, unprovedPercent: 100, unprovedADay: 100, secondFactorRoles: [], ...more },
    office,
  );
const from = (address: string, browser = address): Origin => ({ address, browser, network: address });
const hold = (world: World, origin: Origin, nth = 10, at = 0, actor: Actor = visitor) => {
  const { date, from, to } = world.offers(world.services.sweep, nth)[at]!;
  return perform(
    world.hogar,
    holdOffer,
    { addressId: world.addresses[nth]!.id, items: [{ serviceId: world.services.sweep }], date, from, to },
    actor,
    origin,
  );
};

describe("strangers at the front door", () => {
  it("keep a few times each, and no more until one of them is free again", () => {
    const world = smallWorld();
    closer(world);
    const me = from("a house");
    expect([hold(world, me), hold(world, me), hold(world, me)].map((r) => r.ok || r.problem.code)).toEqual([
      true,
      true,
      "too-many-holds",
    ]);
    expect(hold(world, from("another house")).ok).toBe(true);
    expect(one(world.hogar, "SELECT kind, address FROM security_events ORDER BY id DESC")).toEqual({
      kind: "room refused",
      address: "a house",
    });
    world.later(30);
    expect(hold(world, me).ok).toBe(true);
  });

  it("share an address as a household does, and are counted by it where browsers are many", () => {
    const world = smallWorld();
    closer(world);
    const results = Array.from({ length: 7 }, (_, n) => hold(world, from("one office", `browser ${n}`), 10 + n));
    expect(results.map((r) => r.ok)).toEqual([true, true, true, true, true, true, false]);
  });

  it("are not known by the link of a booking for which they have shown nothing", () => {
    const world = smallWorld();
    closer(world);
    const me = from("a house");
    const { actor } = world.booked({ from: me });
    const holds = [1, 2, 3].map((nth) => hold(world, me, 10 + nth, 0, actor).ok);
    expect(holds).toEqual([true, false, false]);
    expect(saidOf(world.book({ nth: 15, as: actor, from: me, name: "Other Finch" }))).toBe("done");
    expect(saidOf(world.book({ nth: 16, as: actor, from: me, name: "Third Finch" }))).toMatch(/nobody has confirmed/);
  });

  it("are counted by the email and phone they type, wherever they come from", () => {
    const world = smallWorld();
    closer(world);
    const book = (n: number) => world.book({ nth: 10 + n, from: from(`house ${n}`) });
    expect([book(0).ok, book(1).ok, saidOf(book(2))]).toEqual([
      true,
      true,
      "There are several bookings already that nobody has confirmed. Confirm one of them, or call us on +1 555 0100.",
    ]);
  });

  it("keep no more than their share of a day, all together", () => {
    const world = smallWorld();
    closer(world, { unprovedEach: 1000, unprovedPercent: 10 });
    const [first] = world.offers();
    const codes = Array.from({ length: 3 }, (_, n) => hold(world, from(`house ${n}`), 10 + n)).map(
      (r) => r.ok || r.problem.code,
    );
    // Two technicians work sixteen hours: an hour and a half is theirs.
    expect(codes).toEqual([true, "day-is-kept", "day-is-kept"]);
    expect(world.offers(world.services.sweep, 20).some((o) => o.date === first!.date)).toBe(true);
  });

  it("do not keep room by a card that nobody has given out", async () => {
    const world = smallWorld();
    const { jobId, visitId } = world.booked({
      serviceId: world.services.survey,
      more: { cardToken: "tok_made_up_by_somebody" },
    });
    await runDue(world.hogar);
    await runDue(world.hogar);
    expect([
      one(world.hogar, "SELECT state FROM jobs WHERE id = ?", jobId),
      one(world.hogar, "SELECT state FROM visits WHERE id = ?", visitId),
    ]).toEqual([{ state: "cancelled" }, { state: "cancelled" }]);
  });

  it("who hoard are shown to the office, which gives all of it back at once and writes to nobody", async () => {
    const world = smallWorld();
    closer(world);
    for (let n = 0; n < 6; n++) hold(world, from("one office", `browser ${n}`), 10 + n);
    const needs = () => {
      const today = look(world.hogar, ownViews.today, {}, office);
      return today.ok ? today.value.needs.filter((need) => need.kind === "hoarding") : [];
    };
    expect(needs()).toHaveLength(1);
    const { givesBack } = needs()[0]!;
    expect(mustPerform(world.hogar, giveBackRoom, givesBack!, office)).toEqual({ holds: 6, bookings: 0 });
    expect([needs(), hold(world, from("one office")).ok]).toEqual([[], true]);
    expect(one(world.hogar, "SELECT count(*) AS n FROM messages")).toEqual({ n: 0 });
  });
});

describe("a code", () => {
  /** A world in which the next free booking waits for a code. */
  const asking = () => {
    const world = worldWithPost();
    const { sent } = world;
    closer(world, { unprovedEach: 1000, unprovedADay: 0 });
    const codeSent = async () => {
      await runDue(world.hogar);
      return /\d{6}/.exec(sent.filter((m) => /is your code/.test(m.subject)).at(-1)!.subject)![0];
    };
    return { world, sent, codeSent };
  };

  it("is asked where many have booked for nothing: nobody hears of the booking before, and it lapses without", async () => {
    const { world, sent } = asking();
    const { jobId } = world.booked();
    await runDue(world.hogar);
    expect(sent.map((m) => m.subject)).toEqual([expect.stringMatching(/^\d{6} is your code$/)]);
    world.later(61);
    await runDue(world.hogar);
    expect(one(world.hogar, "SELECT state FROM jobs WHERE id = ?", jobId)).toEqual({ state: "cancelled" });
    expect(sent).toHaveLength(1);
  });

  it("makes the booking stand, tells of it, and joins it to the customer of the same name and email", async () => {
    const { world, sent, codeSent } = asking();
    const before = world.booked({ as: system });
    const { actor, jobId } = world.booked({ nth: 12 });
    const code = await codeSent();
    expect(mustPerform(world.hogar, enterCodeByLink, { code: "000000" === code ? "1" : "000000" }, actor)).toEqual({
      right: false,
    });
    expect(mustPerform(world.hogar, enterCodeByLink, { code: ` ${code} ` }, actor)).toEqual({ right: true });
    await runDue(world.hogar);
    expect(sent.filter((m) => m.way === "mail").map((m) => m.subject)).toContainEqual(
      expect.stringMatching(/^Booked: /),
    );
    expect(
      one(world.hogar, "SELECT count(DISTINCT customer_id) AS n FROM jobs WHERE id IN (?, ?)", jobId, before.jobId),
    ).toEqual({ n: 1 });
  });

  it("is tried a few times and then over; another one is sent, a few a day", async () => {
    const { world, codeSent } = asking();
    const { actor } = world.booked();
    const code = await codeSent();
    const wrong = code === "123456" ? "654321" : "123456";
    for (let tries = 0; tries < 5; tries++) mustPerform(world.hogar, enterCodeByLink, { code: wrong }, actor);
    expect(saidOf(perform(world.hogar, enterCodeByLink, { code }, actor))).toBe(
      "This code is over. Have a new one sent.",
    );
    const again = Array.from({ length: 6 }, () => {
      world.later(1);
      return perform(world.hogar, sendCodeByLink, {}, actor).ok;
    });
    expect(again).toEqual([true, true, true, true, false, false]);
    expect(mustPerform(world.hogar, enterCodeByLink, { code: await codeSent() }, actor)).toEqual({ right: true });
  });

  it("stands nowhere to be read: not in messages, not in what is kept of it", async () => {
    const { world, codeSent } = asking();
    world.booked();
    const code = await codeSent();
    const kept = ["messages", "outbox", "jobs", "audit_changes"].map((table) =>
      JSON.stringify(world.hogar.store.sql(`SELECT * FROM ${table}`).all()),
    );
    expect(kept.join("")).not.toContain(code);
  });
});

describe("what is written to a stranger's address", () => {
  it("carries no word that somebody typed, and is not much a day", async () => {
    const world = worldWithPost();
    const { sent } = world;
    for (let n = 0; n < 8; n++)
      world.booked({ name: "Visit evil now", nth: 10 + n, more: { note: "Call +1 555 0199 for a prize" } });
    await runDue(world.hogar);
    const toThem = sent.filter((m) => m.way === "mail" && m.to.startsWith("visit@"));
    expect(toThem.length).toBeGreaterThan(0);
    expect(toThem.length).toBeLessThanOrEqual(6);
    for (const mail of toThem) expect(mail.subject + mail.body).not.toMatch(/evil|prize|0199/);
  });

  it.each(["Win at evil.example", "https://evil.example", "www.evil", "me@evil.example"])(
    "refuses %s as a name",
    (name) => {
      expect(
        saidOf(
          smallWorld().book({
            more: { customer: { name, mail: "a@example.com", phone: "+1 555 0142", reminders: false } },
          }),
        ),
      ).toBe("Write the name, without a web or mail address.");
    },
  );

  it("shows the booking under the name that was typed, without what cannot be seen", () => {
    const world = smallWorld();
    const { actor } = world.booked({
      more: {
        customer: { name: "Mira\u202E Okonjo\u200B", mail: "mira@example.com", phone: "+1 555 0142", reminders: false },
      },
    });
    expect(look(world.hogar, myVisit, {}, actor)).toMatchObject({ value: { again: { name: "Mira Okonjo" } } });
  });
});

describe("somebody whom we know", () => {
  it("keeps as many times as the owner lets a customer, by holds, bookings and wishes, and Today shows and gives all of them back", () => {
    const world = smallWorld();
    closer(world, { provedEach: 3 });
    const mine = world.booked({ as: system });
    const known = mine.actor;
    const book = (nth: number, customer = {}) =>
      world.book({
        nth,
        as: known,
        from: from("anywhere"),
        more: {
          customer: {
            name: "Mira Okonjo",
            mail: "mira@example.com",
            phone: "+1 555 0142",
            reminders: false,
            ...customer,
          },
        },
      });
    expect([book(12).ok, book(13).ok]).toEqual([true, true]);
    expect(saidOf(book(14))).toMatch(/^You have 3 times with us already\. Call us/);
    // Under another name it is somebody else's, of whom nothing is known; their link helps them no further.
    expect(saidOf(book(14, { name: "Anton Weiss", mail: "anton@example.com", phone: "+1 555 0177" }))).toMatch(
      /3 times/,
    );
    expect(hold(world, from("anywhere"), 15, 0, known)).toMatchObject({ problem: { code: "too-many-holds" } });
    const today = look(world.hogar, ownViews.today, {}, office);
    const need = today.ok ? today.value.needs.find(({ kind }) => kind === "hoarding") : undefined;
    expect(need!.words).toBe("Mira Okonjo has booked 3 times online");
    expect(mustPerform(world.hogar, giveBackRoom, need!.givesBack!, office)).toEqual({ holds: 0, bookings: 3 });
    expect(one(world.hogar, "SELECT count(*) AS n FROM visits WHERE state = 'promised'")).toEqual({ n: 0 });
  });

  it("has not made room by cancelling what was booked within the day", () => {
    const world = smallWorld();
    closer(world, { provedEach: 2 });
    const { actor } = world.booked({ as: system });
    const book = (nth: number) => world.book({ nth, as: actor, from: from("anywhere") });
    const second = book(12);
    expect(second.ok).toBe(true);
    mustPerform(world.hogar, giveBackRoom, { address: null, date: null, customerId: 1 }, office);
    expect(book(13).ok).toBe(false);
    world.at("2027-03-10", 600);
    expect(book(13).ok).toBe(true);
  });
});
