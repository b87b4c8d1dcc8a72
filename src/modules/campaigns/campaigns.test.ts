import { everyone } from "@/core/customers/audience";
import { type Actor, personActor } from "@/core/people/permissions";
import { mustPerform, perform } from "@/kernel/operation";
import { actorOfLink, sealedToken } from "@/kernel/links";
import { look } from "@/kernel/view";
import { bookInOffice } from "@/modules/booking/operations/book-in-office";
import { saveCoupon } from "@/modules/catalogue/operations/save-coupon";
import type { SaveCustomer } from "@/modules/customers/inputs";
import { saveCustomer } from "@/modules/customers/operations/save-customer";
import { saveOccasion } from "@/modules/messages/operations/save-occasion";
import { stopByMessage } from "@/modules/messages/operations/stop-by-message";
import { recordPayment } from "@/modules/money/operations/record-payment";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { cancelVisit } from "@/modules/visits/operations/cancel-visit";
import { messageToken } from "@/kernel/links";
import { runDue } from "@/worker/loop";
import { office, one, paymentFor, saidOf, system, visitor, worldWithPost } from "@demo/small-world";
import { customerInput } from "@demo/customer-input";
import type { Rows } from "@/store/rows";
import type { CampaignInput } from "./inputs";
import { openOffer, takeOffer } from "./operations/by-link";
import { endCampaign, pauseCampaign, removeCampaign, runCampaign, saveCampaign } from "./operations/campaigns";
import { inviteCustomer } from "./operations/invite";
import { campaign, campaignAudience, campaignRoom, campaigns } from "./views/campaigns";
import { offer, offerWindows } from "./views/offer";

/** A small business with so many customers who have agreed to offers, each at an address of their own. */
function world(customers: number) {
  const w = worldWithPost();
  const make = (nth: number, more: Partial<SaveCustomer> = {}) =>
    mustPerform(
      w.hogar,
      saveCustomer,
      {
        id: null,
        name: `Customer ${nth}`,
        mail: `customer${nth}@example.com`,
        phone: "",
        reachedBy: "any",
        tags: [],
        source: "",
        paymentDays: null,
        technicianNote: "",
        insideNote: "",
        bill: null,
        reminders: true,
        offers: true,
        site: { addressId: w.addresses[nth]!.id, name: "", access: "", parking: "" },
        ...more,
      },
      office,
    ).id;
  const ids = Array.from({ length: customers }, (_, i) => make(i));
  const begin = look(w.hogar, campaign, { id: null }, office);
  if (!begin.ok) throw new Error(begin.problem.sentence);
  const input = (more: Partial<CampaignInput> = {}): CampaignInput & { id: number | null } => ({
    id: null,
    name: "Sweep before winter",
    serviceId: w.services.sweep,
    couponId: null,
    audience: { ...everyone, restDays: 0 },
    texts: begin.value.starting.texts,
    first: "2027-03-10",
    last: "2027-03-19",
    at: 600,
    mostADay: 50,
    answerDays: 3,
    ...more,
  });
  const save = (more: Partial<CampaignInput> = {}) => mustPerform(w.hogar, saveCampaign, input(more), office).id;
  const run = (more: Partial<CampaignInput> = {}) => {
    const id = save(more);
    mustPerform(w.hogar, runCampaign, { id }, office);
    return id;
  };
  /** The worker at a moment. */
  const at = async (date: string, minute = 605) => {
    w.at(date, minute);
    await runDue(w.hogar);
  };
  const of = (id: number) => {
    const view = look(w.hogar, campaign, { id }, office);
    if (!view.ok) throw new Error(view.problem.sentence);
    return { ...view.value.campaign!, results: view.value.results! };
  };
  const invites = () => w.hogar.store.sql<Rows["campaign_invites"]>("SELECT * FROM campaign_invites ORDER BY id").all();
  const tokens = () => invites().map(({ id }) => sealedToken(w.hogar, { kind: "offer", id }));
  const seen = (token: string) => {
    const [page, windows] = [look(w.hogar, offer, { token }, visitor), look(w.hogar, offerWindows, { token }, visitor)];
    if (!page.ok || !windows.ok) throw new Error("the link opens nothing");
    return { ...page.value, windows: windows.value };
  };
  const take = (token: string) => {
    const { windows, agreement } = seen(token);
    const { date, from, to } = windows[0]!;
    return perform(w.hogar, takeOffer, { token, window: { date, from, to }, read: agreement }, visitor);
  };
  /** The office books for one of them on the phone. */
  const phone = (nth: number) => {
    const { date, from, to } = w.offers(w.services.sweep, nth)[0]!;
    return mustPerform(
      w.hogar,
      bookInOffice,
      {
        addressId: w.addresses[nth]!.id,
        items: [{ serviceId: w.services.sweep }],
        ...{ date, from, to },
        note: "",
        customer: { id: ids[nth]! },
      },
      office,
    );
  };
  const offersSent = () => w.sent.filter(({ body }) => body.includes("Would you like us to come again?"));
  return { ...w, ids, make, input, save, run, at, of, invites, tokens, seen, take, phone, offersSent };
}

describe("whom a campaign means", () => {
  const names = (w: ReturnType<typeof world>, audience: object) => {
    const view = look(
      w.hogar,
      campaignAudience,
      {
        page: 0,
        size: 50,
        sort: "name",
        descending: false,
        search: "",
        audience: { ...everyone, restDays: 0, ...audience },
        channels: ["mail", "text"],
        campaignId: null,
      },
      office,
    );
    if (!view.ok) throw new Error(view.problem.sentence);
    return { names: view.value.rows.map(({ name }) => name), meant: view.value.meant };
  };

  it("are those who have agreed to offers; how many more would fit is told", () => {
    const w = world(2);
    w.make(2, { offers: false });
    expect(names(w, {})).toEqual({ names: ["Customer 0", "Customer 1"], meant: 3 });
  });

  it("are chosen by what they had and when, by what they paid and by whether somebody comes anyway", async () => {
    const w = world(3);
    const job = w.phone(0);
    expect(names(w, {}).names).toEqual(["Customer 1", "Customer 2"]);
    w.onTheDayOf(job.visitId);
    for (const to of ["on the way", "on site", "done"] as const)
      mustPerform(w.hogar, advanceVisit, { visitId: job.visitId, to }, office);
    expect(names(w, { services: [w.services.sweep] }).names).toEqual(["Customer 0"]);
    expect(names(w, { services: [w.services.survey] }).names).toEqual([]);
    expect(names(w, { monthsAgoLeast: 1 }).names).toEqual([]);
    w.at("2027-09-10", 600);
    expect(names(w, { monthsAgoLeast: 5, monthsAgoMost: 7 }).names).toEqual(["Customer 0"]);
    expect(names(w, { monthsAgoMost: 5 }).names).toEqual([]);
    const { id } = one<{ id: number }>(w.hogar, "SELECT id FROM invoices");
    mustPerform(
      w.hogar,
      recordPayment,
      paymentFor(w.hogar, id, { method: "cash", amountMinor: 7900, key: "all of it" }),
      office,
    );
    expect(names(w, { paidLeastMinor: 7900 }).names).toEqual(["Customer 0"]);
    expect(names(w, { paidLeastMinor: 7901 }).names).toEqual([]);
  });
});

describe("a campaign that is written", () => {
  it("is refused with words a customer would read as a gap, without its link, or with days that are over", () => {
    const w = world(1);
    const refused = (more: Partial<CampaignInput>) => saidOf(perform(w.hogar, saveCampaign, w.input(more), office));
    const mail = (body: string) => ({ texts: { en: { mail: { subject: "Again?", body } } } });
    expect(refused(mail("Hello {{custmer}}, {{my_link}}"))).toBe("There is no field {{custmer}}.");
    expect(refused(mail("Hello {{customer}}"))).toBe("Write {{my_link}} where the link to the times stands.");
    expect(refused({ texts: {} })).toBe("Write an email, a text, or both.");
    expect(refused({ first: "2027-03-01", last: "2027-03-09" })).toBe("Its last day is over. Choose a later one.");
  });

  it("keeps what was offered once it runs, and is copied rather than begun again once it has ended", () => {
    const w = world(1);
    const id = w.run();
    expect(saidOf(perform(w.hogar, saveCampaign, { ...w.input({ serviceId: w.services.guard }), id }, office))).toMatch(
      /^Invitations with this have gone out/,
    );
    expect(saidOf(perform(w.hogar, saveCampaign, { ...w.input({ mostADay: 3 }), id }, office))).toBe("done");
    mustPerform(w.hogar, endCampaign, { id }, office);
    expect(saidOf(perform(w.hogar, runCampaign, { id }, office))).toMatch(/^This campaign has ended/);
  });

  it("can be thrown away as long as nobody was invited", () => {
    const w = world(1);
    mustPerform(w.hogar, removeCampaign, { id: w.save() }, office);
    const id = w.run();
    expect(saidOf(perform(w.hogar, removeCampaign, { id }, office))).toMatch(/^It has run already/);
  });
});

describe("invitations", () => {
  it("go out at their time of day, once to each, whatever happens in between", async () => {
    const w = world(4);
    const id = w.run();
    await w.at("2027-03-09", 590);
    expect(w.invites()).toHaveLength(0);
    await w.at("2027-03-09", 605);
    expect(w.invites()).toHaveLength(4);
    // The worker died before it could note that it was done, and looks again.
    w.hogar.store.audit.under({ at: w.hogar.now(), actor: "test", operation: "test" }, () =>
      w.hogar.store.sql("UPDATE campaigns SET next_at = 0 WHERE id = ?").run(id),
    );
    mustPerform(
      w.hogar,
      inviteCustomer,
      { campaignId: id, customerId: w.ids[0]!, siteId: w.invites()[0]!.site_id },
      system,
    );
    await w.at("2027-03-09", 606);
    expect(w.invites()).toHaveLength(4);
    expect(w.offersSent()).toHaveLength(4);
  });

  it("are no more than there is room for: whoever is invited finds a window, all of them together", async () => {
    const w = world(40);
    const id = w.run({ first: "2027-03-10", last: "2027-03-10" });
    await w.at("2027-03-09");
    const invited = w.tokens();
    expect(invited.length).toBeGreaterThan(8);
    expect(invited.length).toBeLessThan(40);
    for (const token of invited) expect(saidOf(w.take(token))).toBe("done");
    expect(w.of(id).results).toMatchObject({ invited: invited.length, booked: invited.length });
  });

  it("wait while those who were asked may still answer, and stop by themselves when the room is gone", async () => {
    const w = world(40);
    const id = w.run({ first: "2027-03-18", last: "2027-03-18", answerDays: 2 });
    await w.at("2027-03-09");
    const first = w.invites().length;
    await w.at("2027-03-10");
    expect(w.invites()).toHaveLength(first);
    expect(w.of(id).state).toBe("running");
    for (const token of w.tokens()) w.take(token);
    await w.at("2027-03-11");
    expect(w.of(id)).toMatchObject({ state: "ended", endReason: "There is no room left on its days." });
  });

  it("are as many a day as the owner wants, and none while it is paused", async () => {
    const w = world(5);
    const id = w.run({ mostADay: 2 });
    await w.at("2027-03-09");
    expect(w.invites()).toHaveLength(2);
    mustPerform(w.hogar, pauseCampaign, { id }, office);
    await w.at("2027-03-10");
    expect(w.invites()).toHaveLength(2);
    mustPerform(w.hogar, runCampaign, { id }, office);
    await w.at("2027-03-11");
    expect(w.invites()).toHaveLength(4);
    await w.at("2027-03-12");
    await w.at("2027-03-16");
    expect(w.of(id)).toMatchObject({ state: "ended", endReason: "Everybody was invited." });
  });

  it("go out every day, whatever their time of day", async () => {
    const w = world(3);
    w.run({ at: 1100, mostADay: 1 });
    for (const date of ["2027-03-09", "2027-03-10", "2027-03-11"]) await w.at(date, 1105);
    expect(w.invites()).toHaveLength(3);
  });

  it("are not for whoever takes back their yes before their turn, nor for whom another campaign has just asked", async () => {
    const w = world(3);
    w.run({ mostADay: 1 });
    await w.at("2027-03-09");
    const [, second] = w.ids as [number, number, number];
    const row = one<Rows["customers"]>(w.hogar, "SELECT * FROM customers WHERE id = ?", second);
    mustPerform(w.hogar, saveCustomer, { ...customerInput(row), offers: false }, office);
    await w.at("2027-03-10");
    await w.at("2027-03-11");
    expect(w.invites().map(({ customer_id }) => customer_id)).toEqual([w.ids[0], w.ids[2]]);
    const other = w.run({ audience: { ...everyone, restDays: 30 } });
    await w.at("2027-03-12");
    expect(w.of(other).results.invited).toBe(0);
  });
});

it("a campaign that writes by text alone invites nobody who is reached by email alone", async () => {
  const w = world(1);
  const { en } = w.input().texts;
  w.make(1, { phone: "+1 555 0181", mail: "" });
  const id = w.run({ texts: { en: { text: en!.text! } } });
  await w.at("2027-03-09");
  expect(w.sent.map(({ way, to }) => [way, to])).toEqual([["text", "+1 555 0181"]]);
  expect(w.of(id).results.invited).toBe(1);
});

it("a campaign does not begin where offers are switched off", () => {
  const w = world(1);
  const occasion = {
    occasion: "offer" as const,
    on: false,
    channels: ["mail" as const],
    each: false,
    outside: "later" as const,
  };
  mustPerform(w.hogar, saveOccasion, occasion, office);
  expect(saidOf(perform(w.hogar, runCampaign, { id: w.save() }, office))).toMatch(/^Offers are switched off/);
});

it("an invitation that waited for the morning is not sent to whoever has booked since", async () => {
  const w = world(2);
  w.run({ at: 1300 });
  // After the allowed hours: it is written, and waits.
  await w.at("2027-03-09", 1305);
  expect([w.invites().length, w.offersSent().length]).toEqual([2, 0]);
  w.phone(0);
  await w.at("2027-03-10", 545);
  expect(w.offersSent().map(({ to }) => to)).toEqual(["customer1@example.com"]);
});

describe("the link of an invitation", () => {
  it("shows real windows and the price with the coupon, and books with one press; twice is once", async () => {
    const w = world(1);
    const { id: couponId } = mustPerform(
      w.hogar,
      saveCoupon,
      {
        id: null,
        code: "AGAIN10",
        kind: "percent",
        value: 1000,
        services: [],
        first: null,
        last: null,
        most: null,
        active: true,
      },
      office,
    );
    w.run({ couponId });
    await w.at("2027-03-09");
    const [token] = w.tokens() as [string];
    expect(w.sent[0]).toMatchObject({ subject: "Chimney sweep again? 10% off until Friday 19 March" });
    const { windows, totalMinor } = w.seen(token);
    expect(totalMinor).toBe(7110);
    expect(windows.length).toBeGreaterThan(10);
    const once = w.take(token);
    const again = w.take(token);
    expect(once).toEqual(again);
    const job = one<{ total_minor: number; coupon_id: number; n: number }>(
      w.hogar,
      "SELECT total_minor, coupon_id, (SELECT count(*) FROM jobs) AS n FROM jobs",
    );
    expect(job).toEqual({ total_minor: 7110, coupon_id: couponId, n: 1 });
    expect(w.seen(token).booked).not.toBeNull();
  });

  it("leaves what must still be paid to the front door, and says nothing of whom it is for", async () => {
    const w = world(1);
    w.run({ serviceId: w.services.survey });
    await w.at("2027-03-09");
    const [token] = w.tokens() as [string];
    expect(w.seen(token)).toMatchObject({
      needsMore: true,
      begins: { item: { serviceId: w.services.survey } },
    });
    expect(JSON.stringify(w.seen(token))).not.toMatch(/Customer 0|customer0@|"by"/);
    expect(w.take(token).ok).toBe(false);
  });

  it("opens nothing once the days are over", async () => {
    const w = world(1);
    w.run({ last: "2027-03-12" });
    await w.at("2027-03-09");
    w.at("2027-03-13", 600);
    expect(look(w.hogar, offer, { token: w.tokens()[0]! }, visitor)).toMatchObject({ ok: false });
  });
});

describe("what comes of a campaign", () => {
  it("counts who opened and booked, by phone too; a booking that is cancelled earns nothing", async () => {
    const w = world(3);
    const id = w.run();
    await w.at("2027-03-09");
    const [first] = w.tokens() as [string, string, string];
    mustPerform(w.hogar, openOffer, { token: first }, visitor);
    const link = w.take(first);
    const phoned = w.phone(1);
    expect(w.of(id).results).toMatchObject({ invited: 3, sent: 3, opened: 1, booked: 2, bookedMinor: 15_800 });
    mustPerform(w.hogar, cancelVisit, { visitId: phoned.visitId, refundDeposit: false }, office);
    expect(w.of(id).results).toMatchObject({ booked: 1, bookedMinor: 7900, earnedMinor: 0 });
    const jobId = actorOfLink(w.hogar, (link.ok && link.value.link) as string)!.jobId;
    const visit = one<{ id: number }>(w.hogar, "SELECT id FROM visits WHERE job_id = ?", jobId);
    w.onTheDayOf(visit.id);
    for (const to of ["on the way", "on site", "done"] as const)
      mustPerform(w.hogar, advanceVisit, { visitId: visit.id, to }, office);
    const invoice = one<{ id: number }>(w.hogar, "SELECT id FROM invoices");
    mustPerform(
      w.hogar,
      recordPayment,
      paymentFor(w.hogar, invoice.id, { method: "cash", amountMinor: 5000, key: "a part of it" }),
      office,
    );
    expect(w.of(id).results).toMatchObject({ earnedMinor: 5000 });
  });

  it("counts who wants no more offers because of it", async () => {
    const w = world(2);
    const id = w.run();
    await w.at("2027-03-09");
    const message = one<{ id: number; occasion: string }>(
      w.hogar,
      "SELECT id, occasion FROM messages WHERE kind = 'offer'",
    );
    mustPerform(w.hogar, stopByMessage, { token: messageToken(w.hogar, message), stop: true }, visitor);
    expect(w.of(id).results.left).toBe(1);
    const list = look(w.hogar, campaigns, {}, office);
    expect(list.ok && list.value.rows[0]!.results.left).toBe(1);
  });
});

it("tells nothing of money to whoever may not see it", async () => {
  const w = world(1);
  w.run();
  await w.at("2027-03-09");
  w.take(w.tokens()[0]!);
  const owner = { id: 1, name: "Odile Brandt", role: "owner" as const, technicianId: null };
  const seen = (actor: Actor) => {
    const view = look(w.hogar, campaigns, {}, actor);
    return view.ok ? view.value.rows[0]!.results.bookedMinor : view.problem.code;
  };
  expect([seen(office), seen(personActor({ ...owner, taken: ["money.see"] }))]).toEqual([7900, null]);
});

it("says for how many there is room before anybody is written to", () => {
  const w = world(40);
  const { texts } = w.input();
  const asked = { audience: { ...everyone, restDays: 0 }, texts, serviceId: w.services.sweep, campaignId: null };
  const room = (first: string, last: string) => {
    const view = look(w.hogar, campaignRoom, { ...asked, first, last }, office);
    return view.ok ? view.value : null;
  };
  expect(room("2027-03-10", "2027-03-19")).toEqual({ looked: 40, fit: 40 });
  expect(room("2027-03-10", "2027-03-10")!.fit).toBeLessThan(20);
  // Nobody works on a Sunday.
  expect(room("2027-03-14", "2027-03-14")!.fit).toBe(0);
});
