import type { MessageGateway, OutgoingMessage } from "@/gateways/types";
import { actorOfLink, sealedToken, shortLeadsTo } from "@/kernel/links";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { renewLink } from "@/modules/booking/operations/renew-link";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { declineIncoming, takeOn } from "@/modules/incoming/operations/incoming";
import { incoming, incomingEntry } from "@/modules/incoming/views/incoming";
import { money } from "@/modules/money/views/money";
import { myVisit } from "@/modules/my-visit/views/my-visit";
import { saveBookingRules } from "@/modules/placing/operations/booking-rules";
import { sendQuote } from "@/modules/quotes/operations/send-quote";
import { locateRequest, makeRequest } from "@/modules/requests/operations/requests";
import { setup } from "@/modules/setup/views/setup";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { firstPage } from "@/ui/first-page";
import { runDue } from "@/worker/loop";
import { office, one, serviceInput, smallWorld, visitor } from "@demo/small-world";
import type { SendQuote } from "./inputs";
import { acceptQuote, bookQuote, declineQuote, putAwayQuotes } from "./operations/quotes";
import { quoteOffers, quote as quoteView } from "./views/quote";
import { quoteDraft } from "./views/quote-draft";

const good = "9900000000001006";

/** A world that keeps what it sends, with a request of Selma Vance. */
function worldWithRequest(more: object = {}) {
  const sent: OutgoingMessage[] = [];
  const gateway: MessageGateway = {
    repeatable: true,
    send: async (message) => {
      sent.push(message);
      return { state: "sent", reference: message.key };
    },
  };
  const world = smallWorld({ mail: gateway, text: gateway });
  const rules = look(world.hogar, setup, {}, office);
  mustPerform(
    world.hogar,
    saveBookingRules,
    { ...(rules.ok ? rules.value.rules : ({} as never)), outside: "request" },
    office,
  );
  const { id } = mustPerform(
    world.hogar,
    makeRequest,
    {
      addressId: world.addresses[10]!.id,
      items: [{ serviceId: world.services.sweep, quantity: 2 }],
      address: "",
      name: "Selma Vance",
      mail: "selma@example.com",
      phone: "+1 555 0178",
      wishes: "Two flues, one of them tall.",
      ...more,
    },
    visitor,
  );
  const begun = () => {
    const view = look(world.hogar, quoteDraft, { kind: "request", id }, office);
    if (!view.ok) throw new Error(view.problem.sentence);
    return view.value.draft;
  };
  const send = (change: Partial<SendQuote> = {}) =>
    perform(world.hogar, sendQuote, { about: { kind: "request", id }, ...begun(), ...change }, office);
  const quoted = (change: Partial<SendQuote> = {}) => {
    const result = send(change);
    if (!result.ok) throw new Error(JSON.stringify(result.problem));
    const { quoteId } = result.value;
    return { quoteId, token: sealedToken(world.hogar, { kind: "quote", id: quoteId }) };
  };
  const shown = (token: string) => look(world.hogar, quoteView, { token }, visitor);
  const offered = (token: string) => {
    const view = look(world.hogar, quoteOffers, { token }, visitor);
    return view.ok ? view.value.map(({ date, from, to }) => ({ date, from, to })) : [];
  };
  const entries = () => {
    const view = look(world.hogar, incoming, firstPage<"incoming">("at"), office);
    return view.ok ? view.value.rows.map(({ key, waits, forUs }) => ({ key, waits, forUs })) : [];
  };
  return Object.assign(world, { requestId: id, sent, send, quoted, shown, offered, entries });
}
const lines = [
  { description: "Two tall flues swept", quantity: 1, unitMinor: 21_000, taxBp: 2100 },
  { description: "Spring price", quantity: 1, unitMinor: -1000, taxBp: 2100 },
];

describe("a quote for work that comes back", () => {
  it("brings the repeat when it is accepted, at the price that was accepted", () => {
    const world = worldWithRequest();
    const { token } = world.quoted({ lines, depositMinor: 0, repeats: [{ every: 3, unit: "month" }] });
    expect(world.shown(token)).toMatchObject({ value: { repeats: [{ every: 3, unit: "month" }] } });
    const [window] = world.offered(token);
    mustPerform(world.hogar, acceptQuote, { token, totalMinor: 20_000, window: window!, words: "" }, visitor);
    expect(
      one(
        world.hogar,
        "SELECT rule, start_date, price_per, price_minor, value_minor FROM repeats WHERE state = 'active'",
      ),
    ).toEqual({
      rule: "FREQ=MONTHLY;INTERVAL=3",
      start_date: window!.date,
      price_per: "visit",
      price_minor: 20_000,
      value_minor: 20_000,
    });
  });
});

const drawing = `data:image/png;base64,${"A".repeat(120)}`;

describe("a quote with options", () => {
  const better = {
    option: "Better",
    items: [],
    lines: [{ description: "Two flues, with a new cap", quantity: 1, unitMinor: 34_000, taxBp: 2100 }],
    minutes: 150,
    crew: 1,
    depositMinor: 5_000,
  };
  const several = (world: ReturnType<typeof worldWithRequest>, change: object = {}) =>
    world.quoted({
      lines,
      depositMinor: 0,
      option: "Good",
      further: [{ ...better, items: [{ serviceId: world.services.sweep }] }],
      ...change,
    });

  it("is accepted at the price of the one that was chosen, which alone stands in it from then on", () => {
    const world = worldWithRequest();
    const { token, quoteId } = several(world);
    expect(world.shown(token)).toMatchObject({
      value: {
        options: [
          { name: "Good", totalMinor: 20_000 },
          { name: "Better", totalMinor: 34_000 },
        ],
      },
    });
    const take = (option: number, totalMinor: number) =>
      perform(world.hogar, acceptQuote, { token, option, totalMinor, window: null, words: "" }, visitor);
    expect(take(1, 20_000)).toMatchObject({ problem: { code: "price-changed" } });
    expect(take(2, 20_000)).toMatchObject({ problem: { code: "invalid-input" } });
    expect(take(1, 34_000).ok).toBe(true);
    expect(one(world.hogar, "SELECT chosen, total_minor, minutes FROM quotes WHERE id = ?", quoteId)).toEqual({
      chosen: "Better",
      total_minor: 34_000,
      minutes: 150,
    });
    expect(world.shown(token)).toMatchObject({ value: { options: [], chosen: "Better" } });
    const [window] = world.offered(token);
    const booked = { token, totalMinor: 34_000, window: window!, words: "" };
    mustPerform(world.hogar, acceptQuote, booked, visitor);
    expect(one(world.hogar, "SELECT total_minor FROM jobs")).toEqual({ total_minor: 34_000 });
  });

  it("is booked by the office as the one that was named on the phone", () => {
    const world = worldWithRequest();
    const { quoteId } = several(world);
    const entry = look(world.hogar, incomingEntry, { kind: "quote", id: quoteId, option: 1 }, office);
    expect(entry).toMatchObject({
      value: { totalMinor: 34_000, minutes: 150, options: [{ name: "Good" }, { name: "Better", totalMinor: 34_000 }] },
    });
    const { date, from, to } = entry.ok ? entry.value.windows[0]! : ({} as never);
    const { jobId } = mustPerform(world.hogar, bookQuote, { quoteId, option: 1, date, from, to }, office);
    expect(one(world.hogar, "SELECT total_minor, parts FROM jobs WHERE id = ?", jobId)).toEqual({
      total_minor: 34_000,
      parts: 1,
    });
  });

  it("is paid in monthly parts where that is offered, once the work is done", () => {
    const world = worldWithRequest();
    const { token } = several(world);
    const [window] = world.offered(token);
    const take = (parts: number) =>
      perform(
        world.hogar,
        acceptQuote,
        { token, option: 0, totalMinor: 20_000, window: window!, words: "", parts },
        visitor,
      );
    expect(take(2)).toMatchObject({ problem: { fields: { "/parts": expect.any(String) } } });
    const { sql, db, audit } = world.hogar.store;
    db.transaction(() =>
      audit.under({ at: 1, actor: "test", operation: "test" }, () => {
        sql("UPDATE business SET parts_most = 2, parts_from_minor = 1000").run();
      }),
    )();
    expect(take(2).ok).toBe(true);
    const { id } = one<{ id: number }>(world.hogar, "SELECT id FROM visits WHERE state = 'promised'");
    world.onTheDayOf(id);
    for (const to of ["on site", "done"] as const) mustPerform(world.hogar, advanceVisit, { visitId: id, to }, office);
    expect(sql("SELECT amount_minor FROM invoice_parts ORDER BY position").all()).toEqual([
      { amount_minor: 10_000 },
      { amount_minor: 10_000 },
    ]);
  });

  it("is not sent while two are called the same, or one has no name", () => {
    const world = worldWithRequest();
    const further = [{ ...better, option: "good ", items: [{ serviceId: world.services.sweep }] }];
    expect(world.send({ lines, depositMinor: 0, option: "Good", further })).toMatchObject({
      problem: { fields: { "/further/0/option": expect.stringContaining("already") } },
    });
    expect(world.send({ lines, depositMinor: 0, further })).toMatchObject({
      problem: { fields: { "/option": expect.stringContaining("name") } },
    });
  });
});

describe("a quote that is signed", () => {
  it("is accepted with a name and a drawing, and shows them", () => {
    const world = worldWithRequest();
    const { token } = world.quoted({ lines, depositMinor: 0, signs: true });
    const accept = (signed: object | null) =>
      perform(
        world.hogar,
        acceptQuote,
        { token, totalMinor: 20_000, window: null, words: "", signed: signed as never },
        visitor,
      );
    expect(accept(null)).toMatchObject({ problem: { fields: { "/signed": expect.stringContaining("sign") } } });
    expect(accept({ name: "Selma Vance", drawing: "data:image/svg+xml,x" }).ok).toBe(false);
    expect(accept({ name: "Selma Vance", drawing }).ok).toBe(true);
    expect(world.shown(token)).toMatchObject({ value: { signedBy: "Selma Vance", signature: drawing } });
  });
});

describe("a quote that nobody answers", () => {
  const followed = async (world: ReturnType<typeof worldWithRequest>, date: string) => {
    world.at(date, 600);
    await runDue(world.hogar);
    return world.sent.filter(({ subject }) => subject.startsWith("Our quote of")).length;
  };
  const askedAgain = (world: ReturnType<typeof worldWithRequest>) =>
    world.hogar.store.db.transaction(() =>
      world.hogar.store.audit.under({ at: 1, actor: "test", operation: "test" }, () =>
        world.hogar.store.sql("UPDATE business SET quote_follow_ups = '[3,10]'").run(),
      ),
    )();

  it("is asked about again on the days that the owner has set, each once, as long as it stands", async () => {
    const world = worldWithRequest();
    askedAgain(world);
    world.quoted({ lines, depositMinor: 0, validUntil: "2027-03-18" });
    expect(await followed(world, "2027-03-11")).toBe(0);
    expect(await followed(world, "2027-03-12")).toBe(1);
    expect(await followed(world, "2027-03-13")).toBe(1);
    expect(await followed(world, "2027-03-19")).toBe(1);
  });

  it("is not asked about once its customer said no", async () => {
    const world = worldWithRequest();
    askedAgain(world);
    const { token } = world.quoted({ lines, depositMinor: 0 });
    mustPerform(world.hogar, declineQuote, { token, words: "" }, visitor);
    expect(await followed(world, "2027-03-25")).toBe(0);
  });
});

describe("a quote", () => {
  it("begins with what was asked for, at its price and with its time", () => {
    const world = worldWithRequest();
    expect(look(world.hogar, quoteDraft, { kind: "request", id: world.requestId }, office)).toMatchObject({
      value: {
        draft: {
          items: [{ quantity: 2 }],
          lines: [{ description: "Chimney sweep", quantity: 2, unitMinor: 7900 }],
          minutes: 120,
          crew: 1,
          validUntil: "2027-04-08",
        },
      },
    });
  });

  it("is sent with a link that opens it and nothing else, and the request waits no more", async () => {
    const world = worldWithRequest();
    const { quoteId, token } = world.quoted({ lines });
    await runDue(world.hogar);
    expect(world.sent.map((m) => [m.to, m.subject])).toEqual([
      ["selma@example.com", "Your quote: 2 × Chimney sweep, €200.00"],
      ["+1 555 0178", ""],
    ]);
    const [mail, text] = world.sent;
    expect(mail!.body).toContain(`/quote/${token}`);
    const short = /\/s\/(\S+)/.exec(text!.body)![1]!;
    // Each way has a token of its own: whoever comes by one has shown that address and no other.
    const byText = sealedToken(world.hogar, { kind: "quote", id: quoteId }, "text");
    expect([shortLeadsTo(world.hogar, short), byText === token]).toEqual([`/quote/${byText}`, false]);
    expect(JSON.stringify(world.hogar.store.sql("SELECT payload FROM outbox").all())).not.toContain(token);
    expect(world.entries()).toEqual([{ key: `quote ${quoteId}`, waits: "for the customer’s answer", forUs: false }]);
    expect(world.shown(token)).toMatchObject({
      value: { state: "sent", totalMinor: 20_000, validUntil: "2027-04-08" },
    });
    expect(world.shown(token.replace(/^\d+/, "2"))).toMatchObject({ problem: { code: "link-ended" } });
    // The seal of a wish opens no quote.
    expect(
      world.shown(`${quoteId}.${sealedToken(world.hogar, { kind: "wish", id: world.requestId }).split(".")[1]}`),
    ).toMatchObject({ problem: { code: "link-ended" } });
  });

  it("is accepted in a window: booked at its price and for its time, whatever the catalogue says by then", async () => {
    const world = worldWithRequest();
    const { token } = world.quoted({ lines, minutes: 110 });
    mustPerform(
      world.hogar,
      saveService,
      {
        ...serviceInput,
        id: world.services.sweep,
        code: "SW",
        name: "Chimney sweep",
        priceMinor: 99_900,
        taxBp: 600,
        minutes: 60,
      },
      office,
    );
    const [window] = world.offered(token);
    const { link } = mustPerform(
      world.hogar,
      acceptQuote,
      { token, totalMinor: 20_000, window: window!, words: "The key is next door." },
      visitor,
    );
    const { jobId } = actorOfLink(world.hogar, link!)!;
    expect(
      one(
        world.hogar,
        "SELECT j.total_minor, j.tax_minor, j.note, v.minutes, v.window_from, v.state, c.name FROM jobs j JOIN visits v ON v.job_id = j.id JOIN customers c ON c.id = j.customer_id WHERE j.id = ?",
        jobId,
      ),
    ).toEqual({
      total_minor: 20_000,
      tax_minor: 3645 - 174,
      note: "Two flues, one of them tall.\nThe key is next door.",
      minutes: 110,
      window_from: window!.from,
      state: "promised",
      name: "Selma Vance",
    });
    // A second tap shows the same booking.
    expect(
      mustPerform(world.hogar, acceptQuote, { token, totalMinor: 20_000, window: window!, words: "" }, visitor),
    ).toEqual({ link });
    expect([world.entries(), one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM jobs").n]).toEqual([[], 1]);
    // When the office ends the link of the visit, the quote's opens it no more either.
    mustPerform(world.hogar, renewLink, { jobId }, office);
    expect([
      world.shown(token),
      perform(world.hogar, acceptQuote, { token, totalMinor: 20_000, window: null, words: "" }, visitor),
    ]).toMatchObject([{ problem: { code: "link-ended" } }, { problem: { code: "link-ended" } }]);
    world.at(window!.date, 600);
    for (const to of ["on site", "done"] as const)
      mustPerform(
        world.hogar,
        advanceVisit,
        { visitId: one<{ id: number }>(world.hogar, "SELECT id FROM visits WHERE job_id = ?", jobId).id, to },
        office,
      );
    expect(
      one<{ total_minor: number }>(world.hogar, "SELECT total_minor FROM invoices WHERE job_id = ?", jobId).total_minor,
    ).toBe(20_000);
    expect(look(world.hogar, money, {}, office)).toMatchObject({ value: { totals: { agrees: true } } });
  });

  it("asks for its deposit; where that never comes it stands as before", async () => {
    const world = worldWithRequest();
    const { token } = world.quoted({ lines, depositMinor: 5000 });
    const { link } = mustPerform(
      world.hogar,
      acceptQuote,
      { token, totalMinor: 20_000, window: world.offered(token)[0]!, words: "" },
      visitor,
    );
    expect(look(world.hogar, myVisit, {}, actorOfLink(world.hogar, link!)!)).toMatchObject({
      value: { job: { state: "awaiting deposit", deposit_minor: 5000 } },
    });
    // Where the deposit never comes the room is free, and the quote can be accepted again.
    world.later(60 * 24 * 3);
    await runDue(world.hogar);
    expect(world.shown(token)).toMatchObject({ value: { state: "sent", booked: null } });
    expect(
      perform(
        world.hogar,
        acceptQuote,
        { token, totalMinor: 20_000, window: world.offered(token)[0]!, words: "" },
        visitor,
      ).ok,
    ).toBe(true);
  });

  it("cannot be accepted at another price than was read, after its day, or in a window that is gone", () => {
    const world = worldWithRequest();
    const { quoteId, token } = world.quoted({ lines });
    const [window] = world.offered(token);
    const accept = (totalMinor = 20_000) =>
      perform(world.hogar, acceptQuote, { token, totalMinor, window: window!, words: "" }, visitor);
    mustPerform(
      world.hogar,
      sendQuote,
      {
        about: { kind: "quote", id: quoteId },
        items: [{ serviceId: world.services.sweep }],
        lines: lines.slice(0, 1),
        minutes: 110,
        crew: 1,
        depositMinor: 0,
        words: "",
        validUntil: "2027-03-10",
      },
      office,
    );
    expect(accept()).toMatchObject({
      problem: { code: "price-changed", sentence: expect.stringContaining("€210.00") },
    });
    while (world.offered(token).some((o) => o.from === window!.from)) world.booked({ window: window!, nth: 11 });
    expect(accept(21_000)).toMatchObject({ problem: { code: "window-gone" } });
    world.at("2027-03-11", 480);
    expect(accept(21_000)).toMatchObject({
      problem: { code: "quote-over", sentence: "This quote has run out. Call us on +1 555 0100." },
    });
    expect([world.shown(token), world.entries()]).toMatchObject([
      { value: { state: "run out" } },
      [{ waits: "the quote has run out", forUs: true }],
    ]);
    mustPerform(world.hogar, putAwayQuotes, { ids: [quoteId] }, office);
    expect([world.shown(token), world.entries()]).toMatchObject([{ problem: { code: "link-ended" } }, []]);
  });

  it("is accepted without a time, for the office to find one; or declined, with what they say", async () => {
    const world = worldWithRequest();
    const { quoteId, token } = world.quoted({ lines });
    mustPerform(
      world.hogar,
      acceptQuote,
      { token, totalMinor: 20_000, window: null, words: "Only after Easter." },
      visitor,
    );
    expect(world.entries()).toMatchObject([{ waits: "accepted, to be booked", forUs: true }]);
    const entry = look(world.hogar, incomingEntry, { kind: "quote", id: quoteId }, office);
    expect(entry).toMatchObject({
      value: { words: "Two flues, one of them tall.\nOnly after Easter.", totalMinor: 20_000 },
    });
    const { date, from, to } = entry.ok ? entry.value.windows[0]! : ({} as never);
    mustPerform(world.hogar, declineQuote, { token, words: "Too much." }, visitor);
    expect(world.entries()).toMatchObject([{ waits: "they said no", forUs: true }]);
    // They call and have changed their mind: no deposit is asked on the phone.
    const { jobId } = mustPerform(world.hogar, bookQuote, { quoteId, date, from, to }, office);
    expect(one(world.hogar, "SELECT total_minor, deposit_minor, booked_by FROM jobs WHERE id = ?", jobId)).toEqual({
      total_minor: 20_000,
      deposit_minor: 0,
      booked_by: "person 1 Odile Brandt",
    });
    expect(perform(world.hogar, bookQuote, { quoteId, date, from, to }, office)).toMatchObject({
      problem: { code: "not-found" },
    });
  });

  it("takes the place of a booking: its room is free, what was paid goes back, and no money is lost", async () => {
    const world = worldWithRequest();
    mustPerform(
      world.hogar,
      saveService,
      {
        ...serviceInput,
        id: world.services.survey,
        code: "CS",
        name: "Camera survey",
        priceMinor: 16_000,
        minutes: 90,
        deposit: { kind: "percent", value: 2500 },
        confirm: true,
      },
      office,
    );
    const { jobId } = world.booked({ serviceId: world.services.survey, card: good });
    await runDue(world.hogar);
    const begun = look(world.hogar, quoteDraft, { kind: "booking", id: jobId }, office);
    expect(begun).toMatchObject({
      value: {
        draft: { lines: [{ description: "Camera survey", unitMinor: 16_000 }], minutes: 90, depositMinor: 4000 },
      },
    });
    mustPerform(
      world.hogar,
      sendQuote,
      {
        about: { kind: "booking", id: jobId },
        items: [{ serviceId: world.services.survey }],
        lines,
        minutes: 90,
        crew: 1,
        depositMinor: 0,
        words: "",
        validUntil: "2027-04-01",
      },
      office,
    );
    await runDue(world.hogar);
    expect(
      one(
        world.hogar,
        "SELECT (SELECT count(*) FROM placements) AS placed, (SELECT sum(amount_minor) FROM refunds WHERE state = 'refunded') AS back, (SELECT state FROM jobs WHERE id = ?) AS job",
        jobId,
      ),
    ).toEqual({ placed: 0, back: 4000, job: "cancelled" });
    expect(world.sent.at(-1)!.body + world.sent.at(-2)!.body).toContain("in place of your booking");
    expect(look(world.hogar, money, {}, office)).toMatchObject({ value: { totals: { agrees: true } } });
  });

  it("is refused with a sentence where it takes more off than it costs, asks too much at once, or is over", () => {
    const world = worldWithRequest();
    const wrong = (change: Partial<SendQuote>) => {
      const result = world.send(change);
      return result.ok ? null : result.problem.fields;
    };
    expect(wrong({ lines: [lines[1]!] })).toEqual({ "/lines": "What is taken off is more than the work costs." });
    expect(wrong({ lines, depositMinor: 20_001 })).toEqual({ "/depositMinor": "The deposit is more than all of it." });
    expect(wrong({ lines, validUntil: "2027-03-08" })).toEqual({
      "/validUntil": "This day is over. Choose a later one.",
    });
    expect(wrong({ lines: [{ ...lines[0]!, description: " " }] })).toEqual({
      "/lines/0/description": "Say what this line is for.",
    });
    expect(world.entries()).toMatchObject([{ key: `request ${world.requestId}` }]);
  });

  it("can be taken back with a reason, and handed to somebody", async () => {
    const world = worldWithRequest();
    const { quoteId, token } = world.quoted({ lines });
    mustPerform(world.hogar, takeOn, { entries: [{ kind: "quote", id: quoteId }], personId: 1 }, office);
    expect(one(world.hogar, "SELECT handler_id FROM quotes")).toEqual({ handler_id: 1 });
    mustPerform(
      world.hogar,
      declineIncoming,
      { entries: [{ kind: "quote", id: quoteId }], reason: "The lift is broken." },
      office,
    );
    await runDue(world.hogar);
    expect(world.sent).toContainEqual(
      expect.objectContaining({ to: "selma@example.com", body: expect.stringContaining("The lift is broken.") }),
    );
    expect(
      perform(world.hogar, acceptQuote, { token, totalMinor: 20_000, window: null, words: "" }, visitor),
    ).toMatchObject({ problem: { code: "link-ended" } });
  });

  it("needs a place: a request from nowhere is found first, then offered windows outside our zones after the usual notice", () => {
    const world = worldWithRequest({ addressId: null, items: [], address: "The mill behind the hill" });
    expect(world.send({ items: [{ serviceId: world.services.sweep }], lines, minutes: 60 })).toMatchObject({
      problem: { fields: { "/": "Say first where this is." } },
    });
    const far = world.town.addresses.find((a) => !a.postcode.startsWith("MW 1"))!;
    mustPerform(world.hogar, locateRequest, { requestId: world.requestId, addressId: far.id }, office);
    const { token } = world.quoted({ items: [{ serviceId: world.services.sweep }], lines, minutes: 60 });
    const windows = world.offered(token);
    expect(windows.length).toBeGreaterThan(0);
    expect(Math.min(...windows.map((w) => w.from)) * 60_000 - world.hogar.now()).toBeGreaterThanOrEqual(3_600_000);
    const { link } = mustPerform(
      world.hogar,
      acceptQuote,
      { token, totalMinor: 20_000, window: windows[0]!, words: "" },
      visitor,
    );
    expect(
      one(
        world.hogar,
        "SELECT s.line, s.zone_id FROM sites s JOIN jobs j ON j.site_id = s.id WHERE j.id = ?",
        actorOfLink(world.hogar, link!)!.jobId,
      ),
    ).toEqual({ line: far.line, zone_id: null });
  });
});
