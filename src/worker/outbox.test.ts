import { triedUntil } from "@/core/messages/usefulness";
import { hourMs } from "@/core/horizons";
import type { CardGateway, MessageGateway, OutgoingMessage } from "@/gateways/types";
import { mustPerform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { settleLost } from "@/modules/messages/operations/settle-lost";
import { messageSetup } from "@/modules/messages/views/message-setup";
import { decideCharge } from "@/modules/money/operations/record-outcomes";
import { ownViews } from "@/registry/modules";
import { drainOutbox, openLanes } from "@/worker/outbox";
import { office, one, smallWorld, system } from "@demo/small-world";
import fc from "fast-check";

const needs = (world: ReturnType<typeof smallWorld>) => {
  const view = look(world.hogar, ownViews.today, {}, office);
  return view.ok ? view.value.needs : [];
};
const states = (world: ReturnType<typeof smallWorld>) =>
  world.hogar.store.sql("SELECT channel, state FROM messages ORDER BY id").all();
const failing = (message = "no answer"): MessageGateway => ({
  repeatable: true,
  send: () => Promise.reject(new Error(message)),
});
const works = (sent: OutgoingMessage[] = []): MessageGateway => ({
  repeatable: true,
  async send(message) {
    sent.push(message);
    return { state: "sent", reference: message.key };
  },
});

describe("the outbox", () => {
  it("sends again what was interrupted, where the other side knows it by its key", async () => {
    const sent: OutgoingMessage[] = [];
    const world = smallWorld({ mail: works(sent) });
    world.booked();
    world.hogar.store.db.exec("UPDATE outbox SET state = 'leased', leased_until = 1, attempts = 1");
    await drainOutbox(world.hogar);
    expect([states(world), sent.length]).toEqual([[{ channel: "mail", state: "sent" }], 1]);
  });

  it("leaves a message whose fate is unknown to a person, where sending twice could harm, who sends it again", async () => {
    const sent: OutgoingMessage[] = [];
    const world = smallWorld({ mail: { ...works(sent), repeatable: false } });
    world.booked();
    world.hogar.store.db.exec("UPDATE outbox SET state = 'leased', leased_until = 1, attempts = 1");
    await drainOutbox(world.hogar);
    const [need] = needs(world).filter(({ kind }) => kind === "stuck");
    expect(need!.words).toBe("Nobody can say whether Mira Okonjo got our message: Booked");
    mustPerform(world.hogar, settleLost, { messageId: need!.lost!.messageId, how: "again" }, office);
    await drainOutbox(world.hogar);
    expect([sent.length, needs(world).filter(({ kind }) => kind === "stuck")]).toEqual([1, []]);
  });

  it("tries as long as it is of use, with growing pauses, and then says by name who has not got what", async () => {
    let tries = 0;
    const world = smallWorld({
      mail: { repeatable: true, send: () => Promise.reject(new Error(`no answer ${++tries}`)) },
    });
    world.booked({ window: world.offers().at(-1) as never });
    await drainOutbox(world.hogar);
    await drainOutbox(world.hogar);
    expect(tries).toBe(1);
    // Hours of it are no reason to give up a promise: the outage may end.
    for (let i = 0; i < 24; i++) {
      world.later(60);
      await drainOutbox(world.hogar);
    }
    expect([tries > 20, states(world)]).toEqual([true, [{ channel: "mail", state: "waiting" }]]);
    for (let i = 0; i < 40; i++) {
      world.later(60);
      await drainOutbox(world.hogar);
    }
    expect(states(world)).toEqual([{ channel: "mail", state: "failed" }]);
    expect(needs(world)).toContainEqual(
      expect.objectContaining({ words: "Mira Okonjo has not got our message: Booked", lost: expect.anything() }),
    );
  });

  it("goes another way in time, where there is one", async () => {
    const sent: OutgoingMessage[] = [];
    const world = smallWorld({ mail: failing(), text: works(sent) });
    world.booked({ as: system, window: world.offers().at(-1) as never });
    for (let i = 0; i < 5; i++) {
      await drainOutbox(world.hogar);
      world.later(60);
    }
    expect(states(world)).toEqual([
      { channel: "mail", state: "failed" },
      { channel: "text", state: "sent" },
    ]);
    expect(needs(world).filter(({ lost }) => lost)).toEqual([]);
  });

  it("keeps texts and cards going while a mail server hangs", async () => {
    const sent: OutgoingMessage[] = [];
    const hangs = new Promise<never>(() => {});
    const world = smallWorld({ mail: { repeatable: true, send: () => hangs }, text: works(sent) });
    world.booked({ as: system, serviceId: world.services.survey, card: "9900000000001006" });
    const { begin } = openLanes(world.hogar);
    for (let turn = 0; turn < 40; turn++) {
      begin();
      await new Promise(setImmediate);
    }
    expect(one(world.hogar, "SELECT state FROM payments")).toEqual({ state: "received" });
  });

  it("begins nothing more once it is told to stop, and does not wait for what hangs", async () => {
    const tried: string[] = [];
    const world = smallWorld({
      mail: {
        repeatable: true,
        send({ key }) {
          tried.push(key);
          return tried.length === 1 ? Promise.resolve({ state: "sent", reference: key }) : new Promise(() => {});
        },
      },
    });
    for (let nth = 10; nth < 22; nth++) world.booked({ nth });
    const { begin, close } = openLanes(world.hogar);
    begin();
    const before = tried.length;
    await close();
    expect([before > 0, tried.length]).toEqual([true, before]);
  });

  it("pauses a lane in which one after the other fails, says so, and goes on by itself", async () => {
    let isBroken = true;
    let tries = 0;
    const world = smallWorld({
      mail: {
        repeatable: true,
        async send({ key }) {
          tries++;
          if (isBroken) throw new Error("535 sign-in refused");
          return { state: "sent", reference: key };
        },
      },
    });
    for (let nth = 10; nth < 22; nth++) world.booked({ nth });
    await drainOutbox(world.hogar);
    // A few were under way when it stopped.
    expect(tries).toBeLessThan(10);
    expect(needs(world).filter(({ kind }) => kind === "trouble")).toEqual([
      expect.objectContaining({
        words: expect.stringMatching(/^Emails do not go out since/),
        detail: expect.stringContaining("535"),
      }),
    ]);
    const setup = look(world.hogar, messageSetup, {}, office);
    expect(setup.ok && setup.value.senders[0]!.missing.join()).toContain("535 sign-in refused");
    isBroken = false;
    for (let i = 0; i < 4; i++) {
      world.later(5);
      await drainOutbox(world.hogar);
    }
    expect(one(world.hogar, "SELECT count(*) AS n FROM messages WHERE state <> 'sent'")).toEqual({ n: 0 });
    expect(needs(world).filter(({ kind }) => kind === "trouble")).toEqual([]);
  });
});

describe("a charge that the card service says nothing of", () => {
  const silent = () => {
    const world = smallWorld();
    const answers = { charge: () => Promise.reject(new Error("no answer")) } as Pick<CardGateway, "charge">;
    const cards = world.hogar.gateways.cards!;
    world.hogar.gateways.cards = { ...cards, ...answers };
    world.booked({
      serviceId: world.services.survey,
      card: "9900000000001006",
      window: world.offers(world.services.survey).at(-1) as never,
    });
    return { world, cards };
  };

  it("is asked about until it answers, however long that takes", async () => {
    const { world, cards } = silent();
    for (let i = 0; i < 60; i++) {
      await drainOutbox(world.hogar);
      world.later(60);
    }
    world.hogar.gateways.cards = cards;
    world.later(10);
    await drainOutbox(world.hogar);
    expect(one(world.hogar, "SELECT state FROM payments")).toEqual({ state: "received" });
  });

  it.each([
    [true, "received"],
    [false, "declined"],
  ])("after a day a person says how it was (charged: %s), and it is asked no more", async (charged, state) => {
    const { world } = silent();
    await drainOutbox(world.hogar);
    expect(needs(world).filter(({ charge }) => charge)).toEqual([]);
    world.later(25 * 60);
    const [need] = needs(world).filter(({ charge }) => charge);
    expect(need!.words).toBe("Whether Mira Okonjo’s card was charged €40.00 is not known");
    mustPerform(world.hogar, decideCharge, { ...need!.charge!, charged }, office);
    expect(one(world.hogar, "SELECT state FROM payments")).toEqual({ state });
    expect(
      one(world.hogar, "SELECT count(*) AS n FROM outbox WHERE kind = 'charge' AND state IN ('ready', 'leased')"),
    ).toEqual({ n: 0 });
    expect(needs(world).filter(({ charge }) => charge)).toEqual([]);
  });
});

it("a message is never tried when it is of no use any more, and goes another way before that", () => {
  fc.assert(
    fc.property(
      fc.record({
        purpose: fc.constantFrom("answer", "service", "reminders", "offers", "ours"),
        ofDebt: fc.boolean(),
        writtenAt: fc.integer({ min: 0, max: 1e13 }),
        opensAfter: fc.option(fc.integer({ min: -48, max: 24 * 60 })),
      }),
      ({ opensAfter, ...unsent }) => {
        const windowFrom = opensAfter === null ? null : unsent.writtenAt + opensAfter * hourMs;
        const alone = triedUntil({ ...unsent, windowFrom, hasOtherWay: false });
        const other = triedUntil({ ...unsent, windowFrom, hasOtherWay: true });
        expect(other).toBeLessThanOrEqual(Math.max(alone, unsent.writtenAt));
        if (windowFrom !== null && !unsent.ofDebt) expect(alone).toBeLessThanOrEqual(windowFrom);
        if (unsent.purpose === "reminders" && !unsent.ofDebt && windowFrom !== null) expect(alone).toBe(windowFrom);
      },
    ),
  );
});
