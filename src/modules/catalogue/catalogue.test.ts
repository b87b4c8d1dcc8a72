import { priceOrder } from "@/core/catalogue/order";
import type { Question } from "@/core/catalogue/questions";
import { addDays } from "@/core/time/dates";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { holdOffer } from "@/modules/booking/operations/hold-offer";
import { servicesAt } from "@/modules/front-door/views/front-door";
import { moveVisit } from "@/modules/placing/operations/move-visit";
import { makeRepeat } from "@/modules/repeats/operations/repeats";
import { saveTechnician } from "@/modules/team/operations/save-technician";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { office, one, serviceInput, smallWorld, visitor } from "@demo/small-world";
import { changePrices, setPrices } from "./operations/prices";
import { saveExtra } from "./operations/save-extra";
import { saveService } from "./operations/save-service";

type World = ReturnType<typeof smallWorld>;
const nest = (skill?: string): Question => ({
  id: "nest",
  words: "A nest?",
  required: true,
  kind: "yes-no",
  yes: { price: { how: "add", minor: 3000 }, minutes: 30, ...(skill && { skills: [{ skill, level: 1 }] }) },
});
const base = (world: World, more: object) => ({
  ...serviceInput,
  id: world.services.sweep,
  code: "SW",
  name: "Chimney sweep",
  priceMinor: 7900,
  minutes: 60,
  ...more,
});
const save = (world: World, more: object) => mustPerform(world.hogar, saveService, base(world, more), office);
const hours = [0, 1, 2, 3, 4].map((weekday) => ({ weekday, opens: 480, closes: 1020 }));
/** Petra may go on roofs; the id of that skill. */
function roofs(world: World): string {
  mustPerform(
    world.hogar,
    saveTechnician,
    {
      id: world.technicians[1]!,
      name: "Petra Lindqvist",
      phone: "+1 555 0112",
      skills: [
        { name: "sweep", level: 1, validUntil: null },
        { name: "roof access", level: 1, validUntil: null },
      ],
      hours,
    },
    office,
  );
  return String(one<{ id: number }>(world.hogar, "SELECT id FROM skills WHERE name = 'roof access'").id);
}

describe("questions", () => {
  it("change price, minutes and who can come, and stand with the job", () => {
    const world = smallWorld();
    save(world, { questions: [nest(roofs(world))] });
    expect(world.book({ window: { date: "2027-03-10", from: 0, to: 0 } })).toMatchObject({
      problem: { fields: { "/items/0/answers/nest": "Please answer this." } },
    });
    const { jobId, visitId } = world.booked({ answers: { nest: true } });
    expect(one(world.hogar, "SELECT total_minor, answers FROM job_items WHERE job_id = ?", jobId)).toEqual({
      total_minor: 10_900,
      answers: JSON.stringify([{ id: "nest", question: "A nest?", words: "yes", value: true }]),
    });
    expect(
      one(
        world.hogar,
        "SELECT v.minutes, p.technician_id FROM visits v JOIN placements p ON p.visit_id = v.id WHERE v.id = ?",
        visitId,
      ),
    ).toEqual({ minutes: 90, technician_id: world.technicians[1] });
    const moved = perform(
      world.hogar,
      moveVisit,
      { visitId, technicianIds: [world.technicians[0]!], date: "2027-03-11", fromMinute: 540, toMinute: 660 },
      office,
    );
    expect(moved).toMatchObject({
      problem: { sentence: expect.stringContaining("Bram Okafor does not have the skill “roof access”") },
    });
  });

  it("cost the same in the try-out, at the front door and on the invoice", () => {
    const world = smallWorld();
    const seal = mustPerform(
      world.hogar,
      saveExtra,
      { id: null, name: "Rope seal", unit: "metre", priceMinor: 650, costMinor: 210, taxBp: 1300, active: true },
      office,
    ).id;
    save(world, { questions: [nest()], extras: [{ id: seal, most: 5 }] });
    const view = look(world.hogar, servicesAt, { addressId: world.addresses[10]!.id }, visitor);
    const { ordered } = view.ok ? view.value.services.find((s) => s.code === "SW")! : { ordered: undefined! };
    expect(ordered.extras).toMatchObject([{ name: "Rope seal", costMinor: 0 }]);
    const shown = priceOrder({
      items: [{ service: ordered, quantity: 1, answers: { nest: true }, extras: [{ id: String(seal), quantity: 3 }] }],
      zone: { name: "Harbourside", surchargeMinor: 0, smallestOrderMinor: 0 },
      pricesIncludeTax: true,
    });
    const { jobId, visitId } = world.booked({ answers: { nest: true }, extras: [{ id: seal, quantity: 3 }] });
    world.at("2027-03-10", 600);
    for (const to of ["on site", "done"] as const) mustPerform(world.hogar, advanceVisit, { visitId, to }, office);
    expect(one(world.hogar, "SELECT total_minor, tax_minor FROM invoices WHERE job_id = ?", jobId)).toEqual({
      total_minor: shown.totalMinor,
      tax_minor: shown.taxMinor,
    });
    expect(shown.totalMinor).toBe(7900 + 3000 + 1950);
  });

  it("answered otherwise while a window is kept, need room of their own", () => {
    const world = smallWorld();
    save(world, { questions: [nest()] });
    const window = world.offers(world.services.sweep, 10, { nest: false })[0]!;
    const hold = mustPerform(
      world.hogar,
      holdOffer,
      {
        addressId: world.addresses[10]!.id,
        items: [{ serviceId: world.services.sweep, answers: { nest: false } }],
        date: window.date,
        from: window.from,
        to: window.to,
      },
      visitor,
    ).key;
    const { visitId } = world.booked({ window, hold, answers: { nest: true } });
    expect(one(world.hogar, "SELECT minutes, state FROM visits WHERE id = ?", visitId)).toEqual({
      minutes: 90,
      state: "promised",
    });
    expect(one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM placements").n).toBe(1);
  });

  it("are remembered by a repeat", () => {
    const world = smallWorld();
    save(world, { questions: [nest()] });
    const { visitId } = world.booked({ answers: { nest: true } });
    mustPerform(world.hogar, makeRepeat, { visitId, rule: "FREQ=WEEKLY;INTERVAL=4" }, office);
    expect(
      one(world.hogar, "SELECT minutes FROM visits WHERE state = 'forecast' AND date = ?", addDays("2027-03-10", 28)),
    ).toEqual({ minutes: 90 });
  });

  it("are refused where they can never be shown, or bring what is not there", () => {
    const world = smallWorld();
    const odd: Question[] = [
      { ...nest("999") },
      {
        id: "b",
        words: "B",
        required: true,
        kind: "one",
        choices: [{ id: "x", words: "X" }],
        shownIf: { question: "nest", is: "maybe" },
      },
      { id: "b", words: "C", required: false, kind: "count", min: 4, max: 2 },
    ];
    const refused = perform(world.hogar, saveService, base(world, { questions: odd }), office);
    expect(refused.ok ? {} : refused.problem.fields).toEqual({
      "/questions/0": "An answer asks for a skill that is not there any more.",
      "/questions/1/choices": "Give at least two answers to choose from.",
      "/questions/1/shownIf": "This can never be shown: no earlier question can be answered like that.",
      "/questions/2": "Two questions have the same id.",
      "/questions/2/max": "The most is less than the least.",
    });
  });
});

it("prices of many services change at once, can be put back, and touch no booking", () => {
  const world = smallWorld();
  const { jobId } = world.booked();
  const price = () =>
    one<{ price_minor: number }>(world.hogar, "SELECT price_minor FROM services WHERE id = ?", world.services.sweep)
      .price_minor;
  const { before } = mustPerform(
    world.hogar,
    changePrices,
    { serviceIds: [world.services.sweep, world.services.survey], basisPoints: 1000, rounding: "0.50" },
    office,
  );
  expect(price()).toBe(8700);
  expect(
    one<{ total_minor: number }>(world.hogar, "SELECT total_minor FROM jobs WHERE id = ?", jobId).total_minor,
  ).toBe(7900);
  mustPerform(world.hogar, setPrices, { prices: before }, office);
  expect(price()).toBe(7900);
  expect(perform(world.hogar, changePrices, { serviceIds: [999], basisPoints: 100, rounding: "1" }, office).ok).toBe(
    false,
  );
});
