import { testCards } from "@/gateways/cards-standin";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { saveCoupon } from "@/modules/catalogue/operations/save-coupon";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { saveTechnician, setTechnicianActive } from "@/modules/team/operations/save-technician";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { cancelVisit } from "@/modules/visits/operations/cancel-visit";
import { office, one, saidOf, serviceInput, smallWorld, visitor } from "@demo/small-world";
import { holdOffer } from "@/modules/booking/operations/hold-offer";
import { book } from "./operations/book";
import { addSource, removeSource } from "./operations/sources";
import { servicesAt } from "./views/front-door";
import { sharing } from "./views/sharing";

describe("a coupon", () => {
  const rules = {
    id: null,
    code: "spring10",
    kind: "percent" as const,
    value: 1000,
    services: [],
    first: null,
    last: null,
    most: 1,
    active: true,
  };
  const booking = (world: ReturnType<typeof smallWorld>, nth: number, coupon?: string) => {
    const { date: on, from, to } = world.offers(world.services.sweep, nth)[0]!;
    return perform(
      world.hogar,
      book,
      {
        addressId: world.addresses[nth]!.id,
        items: [{ serviceId: world.services.sweep }],
        date: on,
        from,
        to,
        note: "",
        ...(coupon !== undefined && { coupon }),
        customer: { name: `Mira ${nth}`, mail: "mira@example.com", phone: "+1 555 0142", reminders: true },
      },
      visitor,
    );
  };

  it("takes off what it says as often as it may, and is given back by who cancels", () => {
    const world = smallWorld();
    mustPerform(world.hogar, saveCoupon, rules, office);
    expect([
      saidOf(booking(world, 10, "WINTER")),
      booking(world, 10, " Spring10 ").ok,
      saidOf(booking(world, 11, "SPRING10")),
    ]).toEqual([
      "We do not know this code. Check how it is written.",
      true,
      "This code has been used as often as it can be.",
    ]);
    const job = one<{ id: number; total_minor: number }>(world.hogar, "SELECT id, total_minor FROM jobs");
    expect([
      job.total_minor,
      world.hogar.store
        .sql("SELECT description, amount_minor FROM job_lines WHERE job_id = ? ORDER BY position")
        .all(job.id),
    ]).toEqual([
      7110,
      [
        { description: "Chimney sweep", amount_minor: 7900 },
        { description: "Coupon SPRING10", amount_minor: -790 },
      ],
    ]);
    mustPerform(
      world.hogar,
      cancelVisit,
      {
        visitId: one<{ id: number }>(world.hogar, "SELECT id FROM visits WHERE job_id = ?", job.id).id,
        refundDeposit: false,
      },
      office,
    );
    expect(booking(world, 12, "SPRING10").ok).toBe(true);
    expect(saidOf(perform(world.hogar, saveCoupon, { ...rules, code: "SPRING10" }, office))).toMatch(
      /one of this already/,
    );
    expect(saidOf(perform(world.hogar, saveCoupon, { ...rules, code: "OTHER", value: 10_001 }, office))).toBe(
      "Enter at most 100%.",
    );
  });
});

describe("where customers come from", () => {
  it("is kept with the booking, counted by its link, also from before it was known", () => {
    const world = smallWorld();
    const booking = (nth: number, source: string | null) => {
      const { date: on, from, to } = world.offers(world.services.sweep, nth)[0]!;
      mustPerform(
        world.hogar,
        book,
        {
          addressId: world.addresses[nth]!.id,
          items: [{ serviceId: world.services.sweep }],
          date: on,
          from,
          to,
          note: "",
          source,
          customer: { name: `Mira ${nth}`, mail: "mira@example.com", phone: "+1 555 0142", reminders: true },
        },
        visitor,
      );
    };
    mustPerform(world.hogar, addSource, { name: "Harbour fair" }, office);
    expect(saidOf(perform(world.hogar, addSource, { name: "harbour FAIR!" }, office))).toMatch(/one of this already/);
    booking(10, "harbour-fair");
    booking(11, "<script>van</script>");
    booking(12, null);
    const counted = () => {
      const result = look(world.hogar, sharing, {}, office);
      return (
        result.ok && [
          result.value.sources.map((s) => [s.name, s.bookings, s.minor]),
          result.value.others.map((o) => [o.name, o.bookings]).sort(),
        ]
      );
    };
    expect(counted()).toEqual([
      [["Harbour fair", 1, 7900]],
      [
        ["not known", 1],
        ["other: script-van-script", 1],
      ],
    ]);
    mustPerform(world.hogar, addSource, { name: "Script van script" }, office);
    expect(counted()).toEqual([
      [
        ["Harbour fair", 1, 7900],
        ["Script van script", 1, 7900],
      ],
      [["not known", 1]],
    ]);
    mustPerform(world.hogar, removeSource, { slug: "harbour-fair" }, office);
    expect(counted()).toEqual([
      [["Script van script", 1, 7900]],
      [
        ["not known", 1],
        ["other: harbour-fair", 1],
      ],
    ]);
  });
});

describe("a wish for a technician", () => {
  const sweep = {
    ...serviceInput,
    code: "SW",
    name: "Chimney sweep",
    priceMinor: 7900,
    minutes: 60,
    deposit: { kind: "none" as const, value: 0 },
  };

  it("is offered and kept where the service lets customers have one, and means nothing elsewhere", () => {
    const world = smallWorld();
    const [, petra] = world.technicians as [number, number];
    const shown = () => {
      const result = look(world.hogar, servicesAt, { addressId: world.addresses[10]!.id }, visitor);
      return result.ok
        ? result.value.services.find((s) => s.id === world.services.sweep)!.technicians.map((t) => t.name)
        : null;
    };
    const booking = (technicianId: number, nth: number) => {
      const { date: on, from, to } = world.offers(world.services.sweep, nth)[0]!;
      mustPerform(
        world.hogar,
        book,
        {
          addressId: world.addresses[nth]!.id,
          items: [{ serviceId: world.services.sweep }],
          technicianId,
          date: on,
          from,
          to,
          note: "",
          customer: { name: `Mira ${nth}`, mail: "mira@example.com", phone: "+1 555 0142", reminders: true },
        },
        visitor,
      );
      return one<{ technician_id: number }>(world.hogar, "SELECT technician_id FROM placements ORDER BY visit_id DESC")
        .technician_id;
    };
    expect(shown()).toEqual([]);
    mustPerform(world.hogar, saveService, { id: world.services.sweep, ...sweep, wish: "only" }, office);
    expect(shown()).toEqual(["Bram", "Petra"]);
    const bram = world.setUp().technicians[0]!;
    const save = (services: number[]) =>
      mustPerform(
        world.hogar,
        saveTechnician,
        { id: bram.id, name: bram.name, phone: bram.phone, skills: bram.skills, hours: bram.hours, services },
        office,
      );
    save([world.services.survey]);
    expect(shown()).toEqual(["Petra"]);
    save([]);
    expect([booking(petra, 10), booking(petra, 11)]).toEqual([petra, petra]);
    mustPerform(world.hogar, setTechnicianActive, { id: petra, active: false }, office);
    expect(shown()).toEqual(["Bram"]);
  });
});

describe("a checklist", () => {
  it("goes along with the visit as it was agreed, and holds it open until what must be is ticked", () => {
    const world = smallWorld();
    const service = {
      ...serviceInput,
      id: world.services.sweep,
      code: "SW",
      name: "Chimney sweep",
      priceMinor: 7900,
      minutes: 60,
      deposit: { kind: "none" as const, value: 0 },
    };
    mustPerform(
      world.hogar,
      saveService,
      {
        ...service,
        checklist: [
          { id: "smoke", words: "Smoke test passed", required: true },
          { id: "shown", words: "Customer shown", required: false },
        ],
      },
      office,
    );
    const { visitId } = world.booked();
    mustPerform(world.hogar, saveService, { ...service, checklist: [] }, office);
    world.onTheDayOf(visitId);
    mustPerform(world.hogar, advanceVisit, { visitId, to: "on site" }, office);
    expect(saidOf(perform(world.hogar, advanceVisit, { visitId, to: "done", ticked: ["shown"] }, office))).toBe(
      "Required first: Smoke test passed.",
    );
    mustPerform(world.hogar, advanceVisit, { visitId, to: "done", ticked: ["smoke"] }, office);
    expect(
      JSON.parse(
        one<{ checklist: string }>(world.hogar, "SELECT checklist FROM visits WHERE id = ?", visitId).checklist,
      ).map((item: { id: string; done: boolean }) => [item.id, item.done]),
    ).toEqual([
      ["smoke", true],
      ["shown", false],
    ]);
  });
});

describe("paying all while booking", () => {
  it("is asked of the card where the service lets customers, and nowhere else", () => {
    const world = smallWorld();
    const booking = (nth: number) => {
      const { date: on, from, to } = world.offers(world.services.survey, nth)[0]!;
      return mustPerform(
        world.hogar,
        book,
        {
          addressId: world.addresses[nth]!.id,
          items: [{ serviceId: world.services.survey }],
          date: on,
          from,
          to,
          note: "",
          payAll: true,
          cardToken: world.hogar.standins!.cards.tokenFor(testCards[0].number)!,
          customer: { name: `Mira ${nth}`, mail: "mira@example.com", phone: "+1 555 0142", reminders: true },
        },
        visitor,
      );
    };
    booking(10);
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
        mayPayAll: true,
      },
      office,
    );
    booking(11);
    expect(world.hogar.store.sql("SELECT amount_minor FROM payments ORDER BY id").all()).toEqual([
      { amount_minor: 4000 },
      { amount_minor: 16_000 },
    ]);
  });
});

describe("a tab that was doubled", () => {
  const hold = (world: ReturnType<typeof smallWorld>) => {
    const { date, from, to } = world.offers()[0]!;
    const items = [{ serviceId: world.services.sweep }];
    const addressId = world.addresses[10]!.id;
    return mustPerform(world.hogar, holdOffer, { addressId, items, date, from, to }, visitor).key;
  };

  it("shows the one who books in it their own booking, and never the first one’s", () => {
    const world = smallWorld();
    const [key, window] = [hold(world), world.offers().at(-1) as never];
    const first = world.booked({ hold: key, name: "Mira Okonjo" });
    const again = world.booked({ hold: key, name: "Mira Okonjo", window });
    const other = world.booked({
      hold: key,
      name: "Anton Vale",
      window,
      more: { customer: { ...anton, reminders: true } },
    });
    expect(again.jobId).toBe(first.jobId);
    expect(other.jobId).not.toBe(first.jobId);
    expect(one(world.hogar, "SELECT count(*) AS n FROM jobs")).toEqual({ n: 2 });
  });
});
const anton = { name: "Anton Vale", mail: "anton@example.com", phone: "+1 555 0188" };
