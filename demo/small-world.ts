import type { Answers } from "@/core/catalogue/questions";
import { type Actor, personActor } from "@/core/people/permissions";
import type { Result } from "@/core/problems";
import { epochMinute } from "@/core/time/local";
import type { WindowAnswer } from "@/core/windows/offer";
import type { Gateways, MessageGateway, OutgoingMessage } from "@/gateways/types";
import { type Hogar } from "@/kernel/hogar";
import { actorOfLink } from "@/kernel/links";
import { mustPerform, type Origin, perform, viewContext } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { findWanted } from "@/modules/booking/wanted";
import { openBusiness } from "@/modules/business/open-business";
import { saveService } from "@/modules/catalogue/operations/save-service";
import type { Book } from "@/modules/front-door/operations/book";
import { book } from "@/modules/front-door/operations/book";
import { saveZone } from "@/modules/place/operations/save-zone";
import { saveBookingRules } from "@/modules/placing/operations/booking-rules";
import { answersFor } from "@/modules/placing/windows";
import { makeRequest } from "@/modules/requests/operations/requests";
import { setup } from "@/modules/setup/views/setup";
import { saveTechnician } from "@/modules/team/operations/save-technician";
import { saveSecurity } from "@/modules/people/operations/save-security";
import { openHogar } from "@/registry/open-hogar";
import { writeFileSync } from "node:fs";
import path from "node:path";
import { emptyDatabase, keptBytes } from "./kept-bytes";
import { makeTown } from "./town";

export const office: Actor = personActor({ id: 1, name: "Odile Brandt", role: "owner", technicianId: null });
export const visitor: Actor = { kind: "visitor" };
export const system: Actor = { kind: "system", name: "test" };
const zone = "Europe/Lisbon";

/** What a service of the small business is like, as far as a test does not say otherwise. */
export const serviceInput = {
  category: "Sweeping",
  description: "",
  taxBp: 2100,
  beforeMinutes: 0,
  afterMinutes: 0,
  crew: 1,
  active: true,
  skills: ["sweep"],
  deposit: { kind: "none" as "none" | "percent" | "fixed" | "full", value: 0 },
};

/** The business as its form sends it. */
export const businessInput = {
  name: "Marrowick Hearth & Flue",
  phone: "+1 555 0100",
  mail: "office@marrowick.example",
  paymentDays: 14,
  travelMarginMinutes: 2,
  travelMarginPercent: 10,
};

/** What is said of a refusal: the sentence at a field, or of the whole; "done" where there is none. */
export const saidOf = (result: Result<unknown>): string =>
  result.ok ? "done" : (Object.values(result.problem.fields ?? {})[0] ?? result.problem.sentence);

export interface SmallBooking {
  serviceId?: number;
  /** Which of the zone's addresses. */
  nth?: number;
  name?: string;
  card?: string;
  window?: { date: string; from: number; to: number };
  hold?: string;
  answers?: Answers;
  extras?: { id: number; quantity: number }[];
  /** Several services, in place of the one. */
  items?: Book["items"];
  /** What else is said while booking. */
  more?: Partial<Book>;
  /** Who books, where that is not a visitor; and from where. */
  as?: Actor;
  from?: Origin;
}

/** The town of all small businesses. */
const smallTown = makeTown(7);
const openedAt = epochMinute("2027-03-09", 480, zone) * 60_000;

/** A small business for tests, in memory or in a folder: two technicians, three services, one zone; Tuesday 9 March 2027, eight o'clock. */
export function smallWorld(gateways: Partial<Gateways> = {}, folder: string | null = null) {
  let now = openedAt;
  const bytes = keptBytes("small", smallBusiness);
  if (folder) writeFileSync(path.join(folder, "hogar.sqlite"), bytes);
  const hogar = openHogar({ folder, bytes, clock: () => now, town: smallTown, gateways, env: {}, standins: true });
  const technicians = hogar.store.sql<{ id: number }>("SELECT id FROM technicians ORDER BY id").all();
  const serviceOf = (code: string) => one<{ id: number }>(hogar, "SELECT id FROM services WHERE code = ?", code).id;
  const [sweep, survey, guard] = [serviceOf("SW"), serviceOf("CS"), serviceOf("BG")];
  const town = smallTown;

  const addresses = town.addresses.filter((a) => a.postcode.startsWith("MW 1"));
  const world = {
    hogar,
    technicians: technicians.map(({ id }) => id),
    services: { sweep, survey, guard },
    addresses,
    town,
    at: (date: string, minute: number) => void (now = epochMinute(date, minute, zone) * 60_000),
    /** The morning of a visit: until then it is not begun. */
    onTheDayOf: (visitId: number) =>
      world.at(one<{ date: string }>(hogar, "SELECT date FROM visits WHERE id = ?", visitId).date, 480),
    later: (minutes: number) => void (now += minutes * 60_000),
    /** Offered windows for a service at the nth address of the zone. */
    offers: (
      serviceId = sweep,
      nth = 10,
      answers: Answers = {},
      items: Book["items"] = [{ serviceId, answers }],
    ): WindowAnswer[] => {
      const context = viewContext(hogar, visitor);
      return answersFor(context, findWanted(context, { addressId: addresses[nth]!.id, items }).visit, [
        "2027-03-10",
        "2027-03-11",
        "2027-03-12",
      ]).filter((a) => a.offered);
    },
    /** Somebody books the first window that is offered, or the one given. */
    book: (more: SmallBooking = {}): Result<{ link: string }> => {
      const { serviceId = sweep, nth = 10, name = "Mira Okonjo", card, hold, answers = {}, extras = [] } = more;
      const { date, from, to } = more.window ?? world.offers(serviceId, nth, answers, more.items)[0]!;
      return perform(
        hogar,
        book,
        {
          addressId: addresses[nth]!.id,
          items: more.items ?? [{ serviceId, answers, extras }],
          date,
          from,
          to,
          note: "",
          ...(hold && { hold }),
          ...(card && { cardToken: hogar.standins!.cards.tokenFor(card)! }),
          customer: {
            name,
            mail: `${name.split(" ")[0]!.toLowerCase()}@example.com`,
            phone: "+1 555 0142",
            reminders: true,
          },
          ...more.more,
        },
        more.as ?? visitor,
        more.from,
      );
    },
    /** Somebody asks for a visit; answers the request's id. */
    asked: (more: object = {}): number =>
      mustPerform(
        hogar,
        makeRequest,
        {
          addressId: addresses[10]!.id,
          items: [{ serviceId: sweep }],
          address: "",
          name: "Selma Vance",
          mail: "selma@example.com",
          phone: "+1 555 0178",
          wishes: "",
          ...more,
        },
        visitor,
      ).id,
    /** What set-up shows the owner. */
    setUp: () => {
      const result = look(hogar, setup, {}, office);
      if (!result.ok) throw new Error(result.problem.sentence);
      return result.value;
    },
    /** The same, where it must work: answers what the customer's link opens. */
    booked: (more: SmallBooking = {}) => {
      const result = world.book(more);
      if (!result.ok) throw new Error(result.problem.sentence);
      const actor = actorOfLink(hogar, result.value.link)!;
      return {
        actor,
        jobId: actor.jobId,
        link: result.value.link,
        visitId: one<{ id: number }>(hogar, "SELECT id FROM visits WHERE job_id = ?", actor.jobId).id,
      };
    },
  };
  return world;
}

/** What a small business is before a test does anything with it. */
function smallBusiness(): Buffer {
  const hogar = openHogar({
    folder: null,
    bytes: emptyDatabase(),
    clock: () => openedAt,
    town: smallTown,
    env: {},
    standins: true,
  });
  const home = smallTown.addresses[0]!;
  openBusiness(
    hogar,
    {
      name: "Marrowick Hearth & Flue",
      phone: "+1 555 0100",
      mail: "office@marrowick.example",
      currency: "EUR",
      pricesIncludeTax: true,
      timeZone: zone,
      place: { lng: home.lng, lat: home.lat },
      demo: true,
    },
    { name: "Odile Brandt", mail: "odile@marrowick.example", password: "open the door" },
  );
  // Tests of all else book as often as they like; those of the lock set it closer.
  mustPerform(
    hogar,
    saveSecurity,
    { unprovedEach: 1000, provedEach: 1000, unprovedPercent: 100, unprovedADay: 1000, secondFactorRoles: [] },
    office,
  );
  mustPerform(
    hogar,
    saveZone,
    {
      id: null,
      name: "Harbourside",
      postcodes: ["MW 1*"],
      weekdays: 127,
      serveFrom: 0,
      serveTo: 1440,
      noticeMinutes: 0,
      surchargeMinor: 0,
      smallestOrderMinor: 0,
    },
    office,
  );
  const hours = [0, 1, 2, 3, 4].flatMap((weekday) => [
    { weekday, opens: 480, closes: 720 },
    { weekday, opens: 780, closes: 1020 },
  ]);
  for (const name of ["Bram Okafor", "Petra Lindqvist"])
    mustPerform(
      hogar,
      saveTechnician,
      { id: null, name, phone: "+1 555 0111", skills: [{ name: "sweep", level: 1, validUntil: null }], hours },
      office,
    );
  for (const service of [
    { code: "SW", name: "Chimney sweep", priceMinor: 7900, minutes: 60 },
    {
      code: "CS",
      name: "Camera survey",
      priceMinor: 16_000,
      minutes: 90,
      deposit: { kind: "percent" as const, value: 2500 },
    },
    { code: "BG", name: "Bird guard fitted", priceMinor: 14_500, minutes: 60, crew: 2 },
  ])
    mustPerform(hogar, saveService, { ...serviceInput, id: null, ...service }, office);
  mustPerform(
    hogar,
    saveBookingRules,
    {
      windows: [9, 11, 13, 15].map((from) => ({
        kind: "window" as const,
        weekdays: 31,
        from: from * 60,
        to: (from + 2) * 60,
      })),
      noticeMinutes: 60,
      horizonDays: 30,
      holdMinutes: 10,
    },
    office,
  );
  const bytes = hogar.store.db.serialize();
  hogar.store.db.close();
  return bytes;
}

/** The one row of a query. */
export const one = <Row>(hogar: Hogar, query: string, ...values: unknown[]): Row =>
  hogar.store.sql<Row>(query).get(...values)!;

/** A small business whose mails and texts are kept in a list. */
export function worldWithPost() {
  const sent: (OutgoingMessage & { way: "mail" | "text" })[] = [];
  const gateway = (way: "mail" | "text"): MessageGateway => ({
    repeatable: true,
    async send(message) {
      sent.push({ ...message, way });
      return { state: "sent", reference: message.key };
    },
  });
  return Object.assign(smallWorld({ mail: gateway("mail"), text: gateway("text") }), { sent });
}

/** A payment for one invoice, as the office records it. */
export const paymentFor = (
  hogar: Hogar,
  invoiceId: number,
  { amountMinor, ...how }: { method: "cash" | "bank"; amountMinor: number; key: string },
) => {
  const { customerId } = one<{ customerId: number }>(
    hogar,
    "SELECT customer_id AS customerId FROM invoices WHERE id = ?",
    invoiceId,
  );
  return { customerId, amountMinor, invoices: [{ invoiceId, amountMinor }], ...how };
};
