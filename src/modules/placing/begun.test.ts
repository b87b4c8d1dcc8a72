import { fieldSteps } from "@/core/visits/states";
import { epochMinute } from "@/core/time/local";
import { mustPerform, perform } from "@/kernel/operation";
import { holdOffer } from "@/modules/booking/operations/hold-offer";
import { lapseHold } from "@/modules/due/operations/lapse";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { office, one, smallWorld, system, visitor } from "@demo/small-world";
import fc from "fast-check";

const date = "2027-03-10";

/** Minutes of the day on which somebody says where a visit stands; which of them, and what. */
const said = fc.array(
  fc.record({ after: fc.integer({ min: 0, max: 180 }), which: fc.nat(4), to: fc.constantFrom(...fieldSteps) }),
  { minLength: 1, maxLength: 8 },
);

/** Some visits of a day, taken up at any time and in any order, hours early or late. */
function begun(steps: readonly { after: number; which: number; to: (typeof fieldSteps)[number] }[]) {
  const world = smallWorld();
  const visits = [10, 40, 80, 120, 160].map((nth) => world.booked({ nth, as: system }).visitId);
  let minute = 420;
  for (const { after, which, to } of steps) {
    world.at(date, (minute += after));
    // What does not follow is refused, and changes nothing.
    perform(world.hogar, advanceVisit, { visitId: visits[which]!, to }, office);
  }
  return { world, visits };
}

it("whatever has begun, and when, every window that is offered can be held", () => {
  fc.assert(
    fc.property(said, (steps) => {
      const { world } = begun(steps);
      const { addresses, services } = world;
      for (const { date: day, from, to } of world.offers(services.sweep, 60).filter((offer) => offer.date === date)) {
        const wanted = { addressId: addresses[60]!.id, items: [{ serviceId: services.sweep }], date: day, from, to };
        const held = perform(world.hogar, holdOffer, wanted, visitor);
        expect(held).toMatchObject({ ok: true });
        const { id } = one<{ id: number }>(world.hogar, "SELECT id FROM visits WHERE state = 'held'");
        world.later(11);
        mustPerform(world.hogar, lapseHold, { visitId: id }, system);
      }
    }),
    { numRuns: 40 },
  );
});

it("what has begun early stands where it is, and no longer where it was planned", () => {
  const { world, visits } = begun([]);
  const visitId = visits.at(-1)!;
  world.at(date, 425);
  mustPerform(world.hogar, advanceVisit, { visitId, to: "on site" }, office);
  expect(one(world.hogar, "SELECT arrives, leaves FROM placements WHERE visit_id = ?", visitId)).toEqual({
    arrives: epochMinute(date, 425, "Europe/Lisbon"),
    leaves: epochMinute(date, 485, "Europe/Lisbon"),
  });
});
