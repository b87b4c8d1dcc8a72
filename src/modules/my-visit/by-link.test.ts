import { testCards } from "@/gateways/cards-standin";
import { mustPerform, perform, viewContext } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { answersOfJob } from "@/modules/catalogue/job-items";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { payByCard } from "@/modules/money/operations/pay-by-card";
import { money } from "@/modules/money/views/money";
import { saveBookingRules } from "@/modules/placing/operations/booking-rules";
import { endRepeat, makeRepeat } from "@/modules/repeats/operations/repeats";
import { setup } from "@/modules/setup/views/setup";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { cancelVisit } from "@/modules/visits/operations/cancel-visit";
import { runDue } from "@/worker/loop";
import { office, one, saidOf, serviceInput, smallWorld, system } from "@demo/small-world";
import {
  addByLink,
  answerByLink,
  cancelByLink,
  confirmByLink,
  consentByLink,
  goAgainByLink,
  moveByLink,
  repeatByLink,
} from "./operations/by-link";
import { myCalendar, myOffers, myVisit } from "./views/my-visit";

const card = testCards[0].number;
type World = ReturnType<typeof smallWorld>;

/** A world whose sweep has terms and, where asked, a deposit; customers move until a day before, cancel until two hours before. */
function worldWith({ deposit = 0, fee = 2500 } = {}): World {
  const world = smallWorld();
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
      deposit: deposit ? { kind: "fixed", value: deposit } : { kind: "none", value: 0 },
      late: { hours: 24, kind: fee ? "fixed" : "none", value: fee },
    },
    office,
  );
  return world;
}
const view = (world: World, actor: Parameters<typeof look>[3]) => {
  const result = look(world.hogar, myVisit, {}, actor);
  if (!result.ok) throw new Error(result.problem.sentence);
  return result.value;
};
const sumsAgree = (world: World) => {
  const result = look(world.hogar, money, {}, office);
  return result.ok && result.value.totals.agrees;
};
const later = (world: World) => world.offers().find((o) => o.date === "2027-03-12")!;

describe("a customer by the link", () => {
  it("confirms, and moving takes the word back", () => {
    const world = worldWith();
    const { actor, visitId } = world.booked({ as: system, window: later(world) });
    mustPerform(world.hogar, confirmByLink, {}, actor);
    expect(view(world, actor).visit.confirmed_at).not.toBeNull();
    const offers = look(world.hogar, myOffers, {}, actor);
    const [first] = offers.ok ? offers.value : [];
    mustPerform(world.hogar, moveByLink, { date: first!.date, from: first!.from, to: first!.to }, actor);
    expect([view(world, actor).visit.window_from, view(world, actor).visit.confirmed_at]).toEqual([first!.from, null]);
    expect(
      world.hogar.store
        .sql("SELECT ended_at IS NULL AS open FROM promises WHERE visit_id = ? ORDER BY made_at, open")
        .all(visitId),
    ).toEqual([{ open: 0 }, { open: 1 }]);
    expect(one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM messages WHERE occasion LIKE 'moved%'").n).toBe(
      2,
    );
  });

  it("is offered only windows that can be kept, and never one that is taken or made up", () => {
    const world = worldWith();
    const { actor } = world.booked({ window: later(world) });
    const made = perform(
      world.hogar,
      moveByLink,
      { date: "2027-03-14", from: later(world).from + 2 * 1440, to: later(world).to + 2 * 1440 },
      actor,
    );
    expect(made).toMatchObject({
      problem: {
        code: "window-gone",
        details: { offers: expect.arrayContaining([expect.objectContaining({ date: expect.any(String) })]) },
      },
    });
  });

  it("moves and cancels until the owner's hours, each its own, and is told whom to call afterwards", () => {
    const world = worldWith();
    const data = look(world.hogar, setup, {}, office);
    mustPerform(
      world.hogar,
      saveBookingRules,
      { ...(data.ok ? data.value.rules : ({} as never)), moveHours: 30, cancelHours: 3 },
      office,
    );
    const window = world.offers().find((o) => o.date === "2027-03-11")!;
    const { actor } = world.booked({ window });
    const before = (hours: number) => world.at("2027-03-11", 540 - hours * 60);
    const may = () => [view(world, actor).changes!.mayMove, view(world, actor).changes!.mayCancel];
    world.at("2027-03-10", 540 - 7 * 60);
    expect(may()).toEqual([true, true]);
    world.at("2027-03-10", 12 * 60);
    expect(may()).toEqual([false, true]);
    expect(
      perform(world.hogar, moveByLink, { date: window.date, from: window.from, to: window.to }, actor),
    ).toMatchObject({
      problem: { code: "too-late-to-change", sentence: "It is too late to change this here. Call us on +1 555 0100." },
    });
    before(2);
    expect(may()).toEqual([false, false]);
    expect(perform(world.hogar, cancelByLink, { feeMinor: 2500 }, actor)).toMatchObject({
      problem: { code: "too-late-to-change" },
    });
  });

  it("cancels for nothing in time, and all that was paid goes back", async () => {
    const world = worldWith({ deposit: 3000 });
    const { actor, jobId } = world.booked({ window: later(world), card });
    await runDue(world.hogar);
    expect(mustPerform(world.hogar, cancelByLink, { feeMinor: 0 }, actor)).toEqual({ feeMinor: 0 });
    await runDue(world.hogar);
    expect([
      one(world.hogar, "SELECT state FROM jobs WHERE id = ?", jobId),
      one(world.hogar, "SELECT amount_minor, state FROM refunds"),
      one(world.hogar, "SELECT count(*) AS n FROM invoices"),
    ]).toEqual([{ state: "cancelled" }, { amount_minor: 3000, state: "refunded" }, { n: 0 }]);
    expect([sumsAgree(world), one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM placements").n]).toEqual([
      true,
      0,
    ]);
  });

  it("cancels late for the fee that was shown: it takes the deposit, and the rest goes back", async () => {
    const world = worldWith({ deposit: 3000 });
    const window = world.offers().find((o) => o.date === "2027-03-10")!;
    const { actor } = world.booked({ window, card });
    await runDue(world.hogar);
    world.later(120);
    expect(view(world, actor).changes!.feeMinor).toBe(2500);
    expect(perform(world.hogar, cancelByLink, { feeMinor: 0 }, actor)).toMatchObject({
      problem: { code: "fee-changed", sentence: "Cancelling now costs €25.00. Look at it again before you cancel." },
    });
    mustPerform(world.hogar, cancelByLink, { feeMinor: 2500 }, actor);
    await runDue(world.hogar);
    expect([
      one(world.hogar, "SELECT total_minor, tax_minor FROM invoices"),
      one(world.hogar, "SELECT amount_minor FROM allocations"),
      one(world.hogar, "SELECT amount_minor FROM refunds"),
    ]).toEqual([{ total_minor: 2500, tax_minor: 434 }, { amount_minor: 2500 }, { amount_minor: 500 }]);
    expect([view(world, actor).fee, view(world, actor).invoice!.openMinor, sumsAgree(world)]).toEqual([
      { description: "Cancelled late", amount_minor: 2500 },
      0,
      true,
    ]);
  });

  it("without a deposit gets an invoice for the fee, and can pay it though the work is cancelled", async () => {
    const world = worldWith();
    const { actor } = world.booked({ window: world.offers().find((o) => o.date === "2027-03-10")! });
    world.later(120);
    mustPerform(world.hogar, cancelByLink, { feeMinor: 2500 }, actor);
    expect(perform(world.hogar, cancelByLink, { feeMinor: 2500 }, actor)).toMatchObject({
      problem: { code: "visit-not-open" },
    });
    mustPerform(
      world.hogar,
      payByCard,
      { purpose: "invoice", cardToken: world.hogar.standins!.cards.tokenFor(card)! },
      actor,
    );
    await runDue(world.hogar);
    expect([
      view(world, actor).invoice!.openMinor,
      one(world.hogar, "SELECT count(*) AS n FROM refunds"),
      sumsAgree(world),
    ]).toEqual([0, { n: 0 }, true]);
  });

  it("who let nobody in is asked the fee where the office says so, and the deposit counts towards it", async () => {
    const world = worldWith({ deposit: 3000 });
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
        deposit: { kind: "fixed", value: 3000 },
        noAccessMinor: 3500,
      },
      office,
    );
    const { visitId, actor } = world.booked({ card });
    await runDue(world.hogar);
    world.onTheDayOf(visitId);
    for (const to of ["on site", "no access"] as const) mustPerform(world.hogar, advanceVisit, { visitId, to }, office);
    mustPerform(world.hogar, cancelVisit, { visitId, refundDeposit: true, chargeNoAccess: true }, office);
    await runDue(world.hogar);
    expect([
      view(world, actor).fee,
      view(world, actor).invoice!.openMinor,
      one(world.hogar, "SELECT count(*) AS n FROM refunds"),
      sumsAgree(world),
    ]).toEqual([{ description: "Nobody let us in", amount_minor: 3500 }, 500, { n: 0 }, true]);
  });

  it("pays what the terms said when the work was agreed, whatever they say now", () => {
    const world = worldWith({ fee: 0 });
    const { actor } = world.booked({ window: world.offers().find((o) => o.date === "2027-03-10")! });
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
        late: { hours: 48, kind: "fixed", value: 5000 },
      },
      office,
    );
    world.later(120);
    expect(view(world, actor).changes!.feeMinor).toBe(0);
  });

  it("adds words for those who come, and opens nothing of others", () => {
    const world = worldWith();
    const [mine, theirs] = [world.booked({ window: later(world) }), world.booked({ name: "Jonas Lund", nth: 25 })];
    mustPerform(world.hogar, addByLink, { words: "Side gate, code 4471", photos: [] }, mine.actor);
    expect([view(world, mine.actor).additions.map((a) => a.words), view(world, theirs.actor).additions]).toEqual([
      ["Side gate, code 4471"],
      [],
    ]);
    expect(perform(world.hogar, addByLink, { words: " ", photos: [] }, mine.actor)).toMatchObject({
      problem: { fields: { "/words": "Write something, or add a photo." } },
    });
    expect(perform(world.hogar, addByLink, { words: "", photos: ["made up"] }, mine.actor)).toMatchObject({
      problem: { fields: { "/photos": expect.stringContaining("did not arrive") } },
    });
    expect(perform(world.hogar, cancelByLink, { feeMinor: 0 }, office)).toMatchObject({
      problem: { code: "as-person" },
    });
    const calendar = look(world.hogar, myCalendar, {}, mine.actor);
    expect(calendar.ok && calendar.value).toMatchObject([
      { uid: `visit-${mine.visitId}@marrowick.example`, from: later(world).from, sequence: 0, cancelled: false },
    ]);
  });
});

describe("what a customer has agreed to", () => {
  it("is taken back by the link, with the words that were shown, and then no reminder is written", async () => {
    const world = worldWith();
    const { actor } = world.booked({ window: later(world) });
    world.booked({ window: later(world), name: "Jonas Lund", nth: 12 });
    const agreed = () => view(world, actor).consents.map(({ kind, given }) => [kind, given]);
    expect(agreed()).toEqual([
      ["reminders", true],
      ["offers", false],
    ]);
    mustPerform(world.hogar, consentByLink, { kind: "reminders", given: false }, actor);
    mustPerform(world.hogar, consentByLink, { kind: "offers", given: true }, actor);
    expect(agreed()).toEqual([
      ["reminders", false],
      ["offers", true],
    ]);
    expect(
      world.hogar.store
        .sql("SELECT given, words FROM consents WHERE kind = 'reminders' AND customer_id = 1 ORDER BY id")
        .all(),
    ).toEqual([1, 0].map((given) => ({ given, words: "Remind me before the visit, by email and text." })));
    world.at("2027-03-11", 17 * 60);
    await runDue(world.hogar);
    expect(
      world.hogar.store
        .sql(
          "SELECT DISTINCT c.name FROM messages m JOIN customers c ON c.id = m.customer_id WHERE m.occasion LIKE 'visit reminder%'",
        )
        .all(),
    ).toEqual([{ name: "Jonas Lund" }]);
    // Whoever books under the same name and mail sees and changes what their own booking says, and nothing else.
    const other = world.booked({
      window: world.offers().at(-1)!,
      nth: 14,
      more: { customer: { name: "Jonas Lund", mail: "jonas@example.com", phone: "+1 555 0142", reminders: false } },
    });
    expect(view(world, other.actor).consents.map(({ given }) => given)).toEqual([false, false]);
    mustPerform(world.hogar, consentByLink, { kind: "reminders", given: true }, other.actor);
    mustPerform(world.hogar, consentByLink, { kind: "reminders", given: false }, other.actor);
    expect(
      one(
        world.hogar,
        "SELECT c.reminders, count(*) AS jobs, sum(j.reminders) AS agreed FROM jobs j JOIN customers c ON c.id = j.customer_id WHERE c.name = 'Jonas Lund'",
      ),
    ).toEqual({ reminders: 1, jobs: 2, agreed: 1 });
    expect(perform(world.hogar, consentByLink, { kind: "card on file", given: false } as never, actor).ok).toBe(false);
  });
});

describe("what was left open while booking", () => {
  it("is answered afterwards where it changes nothing, once, and the office reads it", () => {
    const world = smallWorld();
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
        questions: [
          { id: "pets", words: "Any pets?", required: false, kind: "yes-no" },
          {
            id: "nest",
            words: "A nest?",
            required: false,
            kind: "yes-no",
            yes: { price: { how: "add", minor: 3000 } },
          },
        ],
      },
      office,
    );
    const { actor, jobId } = world.booked();
    expect(view(world, actor).asked).toMatchObject([
      { position: 0, service: "Chimney sweep", questions: [{ id: "pets" }] },
    ]);
    // What would change the price is agreed on the phone.
    expect(perform(world.hogar, answerByLink, { position: 0, answers: { nest: true } }, actor)).toMatchObject({
      problem: { fields: { "/answers/nest": "This is not asked any more." } },
    });
    mustPerform(world.hogar, answerByLink, { position: 0, answers: { pets: true } }, actor);
    expect([view(world, actor).asked, answersOfJob(viewContext(world.hogar, office), jobId)]).toMatchObject([
      [],
      [{ question: "Any pets?", words: "yes" }],
    ]);
    expect(perform(world.hogar, answerByLink, { position: 0, answers: { pets: false } }, actor).ok).toBe(false);
    expect(
      one<{ total_minor: number }>(world.hogar, "SELECT total_minor FROM jobs WHERE id = ?", jobId).total_minor,
    ).toBe(7900);
  });
});

describe("whoever comes by a link", () => {
  it("reads only coming dates on which somebody works, and each date of the rule once", async () => {
    const world = smallWorld();
    const { actor } = world.booked({ window: world.offers().find((o) => o.date === "2027-03-10")! });
    const { id: visitId } = one<{ id: number }>(world.hogar, "SELECT id FROM visits");
    mustPerform(world.hogar, makeRepeat, { visitId, rule: "FREQ=MONTHLY" }, office);
    // The 10th of April and of October 2027 are a Saturday and a Sunday.
    const days = world.hogar.store
      .sql<{ date: string; rule: string }>(
        "SELECT date, repeat_date AS rule FROM visits WHERE state = 'forecast' ORDER BY date",
      )
      .all();
    expect(days.filter(({ date, rule }) => date !== rule)).toEqual([
      { date: "2027-04-09", rule: "2027-04-10" },
      { date: "2027-07-09", rule: "2027-07-10" },
      { date: "2027-10-11", rule: "2027-10-10" },
    ]);
    expect(view(world, actor).coming.every((v) => days.some(({ date }) => date === v.date))).toBe(true);
    world.later(24 * 60);
    await runDue(world.hogar);
    expect(
      one(
        world.hogar,
        "SELECT count(*) - count(DISTINCT repeat_date) AS twice FROM visits WHERE repeat_id IS NOT NULL",
      ),
    ).toEqual({ twice: 0 });
  });

  it("ends the repeat of their visit and takes it up again; what is promised stays, and nobody else's repeat is touched", () => {
    const world = worldWith();
    const [mine, theirs] = [world.booked(), world.booked({ name: "Jonas Lund", nth: 30 })];
    for (const { visitId } of [mine, theirs])
      mustPerform(world.hogar, makeRepeat, { visitId, rule: "FREQ=MONTHLY" }, office);
    const states = () =>
      world.hogar.store
        .sql<{ state: string; n: number }>("SELECT state, count(*) AS n FROM visits GROUP BY state ORDER BY state")
        .all();
    const before = states();
    expect(view(world, mine.actor).repeat).toEqual({ words: "every month on the 10th", active: true });
    mustPerform(world.hogar, repeatByLink, { goesOn: false }, mine.actor);
    mustPerform(world.hogar, repeatByLink, { goesOn: false }, mine.actor);
    expect([view(world, mine.actor).coming, view(world, theirs.actor).coming.length, states()]).toEqual([
      [],
      4,
      [
        { state: "forecast", n: before[0]!.n / 2 },
        { state: "promised", n: 2 },
      ],
    ]);
    mustPerform(world.hogar, repeatByLink, { goesOn: true }, mine.actor);
    expect([view(world, mine.actor).repeat?.active, states()]).toEqual([true, before]);
    // What the office has ended is not the customer's to take up.
    mustPerform(world.hogar, endRepeat, { repeatId: 1 }, office);
    expect([
      view(world, mine.actor).repeat,
      perform(world.hogar, repeatByLink, { goesOn: true }, mine.actor),
    ]).toMatchObject([null, { problem: { code: "not-found" } }]);
    expect(
      perform(world.hogar, repeatByLink, { goesOn: false }, world.booked({ name: "Ada Brome", nth: 31 }).actor),
    ).toMatchObject({ problem: { code: "not-found" } });
  });

  it("books again with what they have said before, at the same place, as the same customer", () => {
    const world = worldWith();
    const { actor, jobId } = world.booked({ as: system });
    const { again } = view(world, actor);
    expect(again).toMatchObject({
      name: "Mira Okonjo",
      mail: "mira@example.com",
      address: { line: world.addresses[10]!.line },
    });
    const second = world.booked({
      as: actor,
      more: {
        addressId: again.address!.id,
        customer: { name: again.name, mail: again.mail, phone: again.phone, reminders: true },
      },
    });
    expect(
      one(
        world.hogar,
        "SELECT count(DISTINCT customer_id) AS customers, count(DISTINCT site_id) AS sites FROM jobs WHERE id IN (?, ?)",
        jobId,
        second.jobId,
      ),
    ).toEqual({ customers: 1, sites: 1 });
  });
});

describe("somebody who was not at home", () => {
  it("chooses another time by their link, for the fee that was agreed, and is billed it with the work", async () => {
    const world = smallWorld();
    const { visitId, actor } = world.booked();
    world.hogar.store.db
      .transaction(() =>
        world.hogar.store.audit.under({ at: 1, actor: "test", operation: "terms" }, () =>
          world.hogar.store
            .sql("UPDATE job_items SET terms = json_set(terms, '$.noAccessMinor', 2500) WHERE job_id = ?")
            .run(actor.jobId),
        ),
      )
      .immediate();
    world.onTheDayOf(visitId);
    for (const to of ["on the way", "no access"] as const)
      mustPerform(world.hogar, advanceVisit, { visitId, to }, office);
    const seen = view(world, actor);
    expect([seen.changes, seen.missed]).toEqual([null, { feeMinor: 2500 }]);
    const offers = look(world.hogar, myOffers, {}, actor);
    if (!offers.ok) throw new Error(offers.problem.sentence);
    const { date, from, to } = offers.value[0]!;
    const again = (feeMinor: number) => perform(world.hogar, goAgainByLink, { date, from, to, feeMinor }, actor);
    expect(saidOf(again(0))).toContain("€25.00");
    expect(again(2500).ok).toBe(true);
    expect(again(2500).ok).toBe(false);
    expect(view(world, actor)).toMatchObject({ visit: { state: "promised", date }, missed: null });
    expect(view(world, actor).lines.at(-1)).toMatchObject({ amount_minor: 2500 });
    expect(view(world, actor).job.total_minor).toBe(7900 + 2500);
  });
});
