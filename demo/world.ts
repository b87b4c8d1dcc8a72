import { billSomeLater, takeAtTheDoor } from "./billing-life";
import { readTheBank } from "./bank-files";
import { bankTheEarlier, collectByItself } from "./collection-life";
import { quoteDays, quoteLines } from "@/core/catalogue/quotes";
import { type Line, totalOf } from "@/core/money/amounts";
import { paymentStates } from "@/core/money/states";
import { ruleText } from "@/core/repeats/recurrence";
import { ruleFrom } from "@/core/repeats/rule";
import { addDays, weekdayOf } from "@/core/time/dates";
import { epochMinute, localDate } from "@/core/time/local";
import { visitStates } from "@/core/visits/states";
import { testCards } from "@/gateways/cards-standin";
import type { Hogar } from "@/kernel/hogar";
import { actorOfLink, linkTokenOf, sealedToken } from "@/kernel/links";
import { mustPerform, perform, viewContext } from "@/kernel/operation";
import { bookInOffice } from "@/modules/booking/operations/book-in-office";
import { findWanted } from "@/modules/booking/wanted";
import { book } from "@/modules/front-door/operations/book";
import { approveBookings } from "@/modules/incoming/operations/incoming";
import { payByCard } from "@/modules/money/operations/pay-by-card";
import { recordPayment } from "@/modules/money/operations/record-payment";
import { answersFor } from "@/modules/placing/windows";
import { acceptQuote } from "@/modules/quotes/operations/quotes";
import { sendQuote } from "@/modules/quotes/operations/send-quote";
import { makeRepeat } from "@/modules/repeats/operations/repeats";
import { makeRequest } from "@/modules/requests/operations/requests";
import { recordTimeOff } from "@/modules/team/operations/absences";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { tickedColumn } from "@/store/columns";
import { everyTurn } from "@/worker/jobs";
import { drainOutbox } from "@/worker/outbox";
import { inviteThem, sayHowItWas, wantThemBack } from "./coming-back-life";
import { answerThisMorning, writeToCustomers } from "./conversations-life";
import { runDue } from "@/worker/loop";
import { type DemoCustomer, makeCustomers } from "./customers";
import { knowTheCustomers } from "./customer-life";
import { bookElsewhere } from "./places-life";
import { workByPatterns } from "./job-patterns";
import { agreeRepeats } from "./repeats-life";
import * as marrowick from "./marrowick";
import { accessNotes } from "./names";
import { type Random, seeded } from "./random";
import { office, setUp } from "./set-up";

export interface WorldOptions {
  seed: number;
  /** How many times the usual size. */
  scale?: number;
  /** Days of history; a test may want less. */
  historyDays?: number;
  /** Told what is being made. */
  progress?: (words: string) => void;
}

/**
 * Fills a fresh installation with the demo's business and lives six weeks of its life: every booking,
 * visit and payment goes through the same operations as in the real interface, at its own moment of
 * a clock that `setClock` moves. Ends at `now`.
 */
export async function makeWorld(
  hogar: Hogar,
  setClock: (ms: number) => void,
  now: number,
  { seed, scale = 1, historyDays = 42, progress = () => {} }: WorldOptions,
): Promise<void> {
  const random = seeded(seed);
  const zone = marrowick.business.timeZone;
  const today = localDate(Math.floor(now / 60_000), zone);
  const at = (date: string, hour: number) => epochMinute(date, Math.round(hour * 60), zone) * 60_000;

  setClock(at(addDays(today, -historyDays), 8));
  progress("setting the business up");
  await setUp(hogar, today);
  writeToCustomers(hogar);
  wantThemBack(hogar);
  const customers = makeCustomers(hogar, random, 180 * scale);
  const life = new Life(hogar, random, customers);

  for (let n = -historyDays; n <= 0; n++) {
    const date = addDays(today, n);
    if (n === 0 && at(date, 9) > now) break;
    progress(`day ${n + historyDays + 1} of ${historyDays + 1}`);
    // Whoever begins at seven is on the way before the office takes its first call.
    await life.workThrough(date, setClock, at(date, 9));
    setClock(at(date, 9));
    await runDue(hogar);
    // The diary of the coming days fills up as they come nearer.
    const bookings = weekdayOf(date) === 6 ? 0 : (n > -9 ? random.int(17, 21) : random.int(7, 10)) * scale;
    for (let i = 0; i < bookings; i++) life.bookSomething(14);
    life.confirmAll();
    if (n === -historyDays + 3) life.startRepeats(60 * scale);
    if (n === -5) await collectByItself(hogar);
    if (n === -2) billSomeLater(hogar);
    if (n === -3) inviteThem(hogar);
    await runDue(hogar, everyTurn);
    await life.workThrough(date, setClock, Math.min(now, at(date, 19)));
    setClock(Math.min(now, at(date, 19)));
    life.payInvoices();
    await runDue(hogar, everyTurn);
  }
  setClock(now);
  progress("this morning");
  await life.thisMorning(today);
  knowTheCustomers(hogar, random);
  takeAtTheDoor(hogar);
  bankTheEarlier(hogar);
  await readTheBank(hogar);
  bookElsewhere(hogar);
  await runDue(hogar);
  progress("the repeats");
  workByPatterns(hogar);
  await agreeRepeats(hogar);
  sayHowItWas(hogar);
  answerThisMorning(hogar);
  await runDue(hogar, everyTurn);
}

class Life {
  private readonly services: { id: number; code: string; deposit_kind: string }[];
  private readonly popular: string[];
  private next = 0;

  constructor(
    private readonly hogar: Hogar,
    private readonly random: Random,
    private readonly customers: DemoCustomer[],
  ) {
    this.services = hogar.store
      .sql<{ id: number; code: string; deposit_kind: string }>("SELECT id, code, deposit_kind FROM services")
      .all();
    this.popular = marrowick.services.flatMap((s) => Array<string>(s.popular).fill(s.code));
  }

  /** Somebody books: at the front door or by phone, in one of the next `days` days. */
  bookSomething(
    days: number,
    code = this.random.pick(this.popular),
    card: (typeof testCards)[number] = testCards[0],
  ): number | null {
    const { hogar, random } = this;
    const customer = this.customers[this.next++ % this.customers.length]!;
    const address = random.pick(customer.sites);
    const service = this.services.find((s) => s.code === code)!;
    const context = viewContext(hogar, office);
    const dates = Array.from({ length: days }, (_, i) => addDays(context.today, i));
    const answers = marrowick.someAnswers(code, random);
    const { visit } = findWanted(context, { addressId: address.id, items: [{ serviceId: service.id, answers }] });
    const offers = answersFor(context, visit, dates).filter((a) => a.offered);
    if (offers.length === 0) return null;
    // Most people take one of the first windows.
    const { date, from, to } = offers[Math.min(random.int(0, offers.length - 1), random.int(0, offers.length - 1))]!;
    const { name, mail, phone, reminders } = customer;
    const details = { name, mail, phone, reminders, offers: this.next % 3 > 0 };
    const chosen = {
      addressId: address.id,
      items: [{ serviceId: service.id, answers }],
      date,
      from,
      to,
      note: random.pick(accessNotes),
    };
    if (service.deposit_kind === "none" && random.chance(0.4))
      return mustPerform(hogar, bookInOffice, { ...chosen, customer: details }, office).jobId;
    const { link } = mustPerform(
      hogar,
      book,
      {
        ...chosen,
        customer: details,
        source: random.pick(marrowick.cameBy),
        cardToken: hogar.standins!.cards.tokenFor(card.number)!,
      },
      // Who has been here before is known: the demo tells of customers, and not of strangers.
      { kind: "system", name: "front door" },
    );
    return actorOfLink(hogar, link)!.jobId;
  }

  /** The office confirms what it wants to look at before it stands. */
  confirmAll(): void {
    const jobIds = this.hogar.store
      .sql<{ id: number }>("SELECT id FROM jobs WHERE approval = 'waiting' AND state <> 'cancelled'")
      .all()
      .map((job) => job.id);
    if (jobIds.length) mustPerform(this.hogar, approveBookings, { jobIds }, office);
  }

  /** The agreements that bring visits back. */
  startRepeats(count: number): void {
    const { hogar, random } = this;
    for (let i = 0; i < count; i++) {
      const [code, every, unit] = random.pick([
        ["SW", 1, "year"],
        ["SW", 1, "year"],
        ["ST", 1, "year"],
        ["PO", 4, "week"],
        ["LC", 3, "month"],
        ["GA", 6, "month"],
      ] as const);
      const jobId = this.bookSomething(14, code);
      if (jobId === null) continue;
      const { id, date } = hogar.store
        .sql<{ id: number; date: string }>("SELECT id, date FROM visits WHERE job_id = ?")
        .get(jobId)!;
      mustPerform(hogar, makeRepeat, { visitId: id, rule: ruleText(ruleFrom({ every, unit }, date)) }, office);
    }
  }

  /** The technicians' day, up to `until`. */
  async workThrough(date: string, setClock: (ms: number) => void, until: number): Promise<void> {
    const { hogar, random } = this;
    const visits = hogar.store
      .sql<{ id: number; drive_from: number; arrives: number; leaves: number }>(
        `SELECT v.id, min(p.drive_from) AS drive_from, max(p.arrives) AS arrives, max(p.leaves) AS leaves
          FROM visits v JOIN placements p ON p.visit_id = v.id JOIN jobs j ON j.id = v.job_id
          WHERE v.date = ? AND v.state IN ${visitStates.sql("expect")} AND j.state = 'agreed' GROUP BY v.id
          ORDER BY arrives`,
      )
      .all(date);
    const steps = visits.flatMap((v) => [
      { at: v.drive_from, visitId: v.id, to: "on the way" as const },
      { at: v.arrives, visitId: v.id, to: "on site" as const },
      {
        at: v.leaves - random.int(0, 6),
        visitId: v.id,
        to: random.chance(0.02) ? ("no access" as const) : ("done" as const),
      },
    ]);
    for (const step of steps.sort((a, b) => a.at - b.at)) {
      if (step.at * 60_000 > until || step.at * 60_000 < hogar.now()) continue;
      setClock(step.at * 60_000);
      const list = hogar.store
        .sql<{ checklist: string }>("SELECT checklist FROM visits WHERE id = ?")
        .get(step.visitId)!;
      const ticked = tickedColumn.read(list.checklist).map((item) => item.id);
      perform(
        hogar,
        advanceVisit,
        { visitId: step.visitId, to: step.to, ...(step.to === "done" && { ticked }) },
        office,
      );
      // Whoever is told that somebody is on the way is told now, and not when they are there.
      if (step.to === "on the way") await drainOutbox(hogar);
    }
  }

  /** Most customers pay within days; a few need reminding, and a few have not paid yet. */
  payInvoices(): void {
    const { hogar, random } = this;
    const open = hogar.store
      .sql<{ id: number; job_id: number; customer_id: number; open: number }>(
        `SELECT i.invoice_id AS id, i.job_id, i.customer_id, i.open_minor AS open
          FROM invoice_balances i WHERE open > 0 AND i.job_id IS NOT NULL AND i.invoice_id % 11 <> 0
            AND NOT EXISTS (SELECT 1 FROM payments WHERE job_id = i.job_id AND state IN ${paymentStates.sql("under way")})
          ORDER BY i.invoice_id`,
      )
      .all();
    for (const invoice of open) {
      if (!random.chance(0.3)) continue;
      if (random.chance(0.2)) {
        const part = random.chance(0.2) ? Math.floor(invoice.open / 2) : invoice.open;
        mustPerform(
          hogar,
          recordPayment,
          {
            customerId: invoice.customer_id,
            invoices: [{ invoiceId: invoice.id, amountMinor: part }],
            method: random.pick(["cash", "bank"] as const),
            amountMinor: part,
            key: `demo-${invoice.id}-${invoice.open}`,
          },
          office,
        );
      } else this.pay(invoice.job_id, "invoice", testCards[random.chance(0.06) ? 1 : 0]);
    }
  }

  private pay(jobId: number, purpose: "deposit" | "invoice", card: (typeof testCards)[number]): void {
    const { hogar } = this;
    const actor = actorOfLink(hogar, linkTokenOf(hogar, jobId)!)!;
    mustPerform(hogar, payByCard, { purpose, cardToken: hogar.standins!.cards.tokenFor(card.number)! }, actor);
  }

  /** Somebody asks, and gets a quote. */
  private quote(
    name: string,
    phone: string,
    code: string,
    wishes: string,
    lines: Line[],
  ): { token: string; totalMinor: number } {
    const { hogar, random } = this;
    const {
      id: serviceId,
      minutes,
      crew,
    } = hogar.store
      .sql<{ id: number; minutes: number; crew: number }>("SELECT id, minutes, crew FROM services WHERE code = ?")
      .get(code)!;
    const address = random.pick(hogar.town!.addresses.filter((a) => a.line.endsWith("Northfield")));
    const { id } = mustPerform(
      hogar,
      makeRequest,
      {
        addressId: address.id,
        items: [{ serviceId }],
        address: "",
        name,
        mail: `${name.toLowerCase().replace(" ", ".")}@example.com`,
        phone,
        wishes,
      },
      { kind: "visitor" },
    );
    const { quoteId } = mustPerform(
      hogar,
      sendQuote,
      {
        about: { kind: "request", id },
        items: [{ serviceId }],
        lines,
        minutes,
        crew,
        depositMinor: 0,
        words: "Thank you for asking. This is what we would do, and what it costs.",
        validUntil: addDays(localDate(Math.floor(hogar.now() / 60_000), marrowick.business.timeZone), quoteDays),
      },
      office,
    );
    return {
      token: sealedToken(hogar, { kind: "quote", id: quoteId }),
      totalMinor: totalOf(quoteLines(lines, true)).totalMinor,
    };
  }

  /** What makes a dispatcher's morning: somebody is ill, a card has failed, and somebody asks from outside the zones. */
  async thisMorning(today: string): Promise<void> {
    const { hogar } = this;
    this.bookSomething(12, "ST", testCards[1]);
    const kofi = hogar.store.sql<{ id: number }>("SELECT id FROM technicians WHERE name = 'Kofi Mensah'").get()!;
    const tomorrow = Array.from({ length: 7 }, (_, i) => addDays(today, i + 1)).find((date) => weekdayOf(date) < 5)!;
    const beyond = hogar.town!.addresses.find((a) => a.postcode === marrowick.outsidePostcode)!;
    mustPerform(
      hogar,
      makeRequest,
      {
        addressId: beyond.id,
        address: "",
        name: "Ottilie Fenn",
        mail: "ottilie.fenn@example.com",
        phone: "+1 555 0177",
        wishes: "Two flues to sweep, any morning next week.",
      },
      { kind: "visitor" },
    );
    for (let i = 0; i < 2; i++) this.bookSomething(12, "CW");
    const inside = hogar.town!.addresses.find((a) => a.line.endsWith("Northfield"))!;
    const sweep = this.services.find((s) => s.code === "SW")!.id;
    mustPerform(
      hogar,
      makeRequest,
      {
        addressId: inside.id,
        items: [{ serviceId: sweep, answers: { flues: 1, nest: false } }],
        address: "",
        name: "Selma Vance",
        mail: "selma.vance@example.com",
        phone: "+1 555 0178",
        wishes: "I am home from five.",
        wish: { weekdays: 31, from: 17 * 60, to: 20 * 60, until: null },
      },
      { kind: "visitor" },
    );
    this.quote(
      "Ruth Amsel",
      "+1 555 0179",
      "FR",
      "A new stainless liner for the living room, if the old flue needs one.",
      [
        { description: "Flue relined in stainless steel, by the metre", quantity: 9, unitMinor: 14_500, taxBp: 2100 },
        { description: "Scaffold for two days", quantity: 1, unitMinor: 32_000, taxBp: 2100 },
      ],
    );
    const yes = this.quote("Viktor Ness", "+1 555 0180", "BG", "Two chimney pots, jackdaws every spring.", [
      { description: "Bird guard fitted", quantity: 2, unitMinor: 14_500, taxBp: 2100 },
      { description: "Both in one visit", quantity: 1, unitMinor: -3000, taxBp: 2100 },
    ]);
    mustPerform(
      hogar,
      acceptQuote,
      { token: yes.token, totalMinor: yes.totalMinor, window: null, words: "Any Friday afternoon." },
      { kind: "visitor" },
    );
    mustPerform(
      hogar,
      recordTimeOff,
      { technicianId: kofi.id, firstDate: tomorrow, lastDate: tomorrow, reason: "Ill" },
      office,
    );
  }
}
