import { mustPerform, perform } from "@/kernel/operation";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { look } from "@/kernel/view";
import { moveVisit } from "@/modules/placing/operations/move-visit";
import { whyNot } from "@/modules/placing/views/why-not";
import { firstBroken } from "@/registry/laws";
import { office, one, saidOf, serviceInput, smallWorld } from "@demo/small-world";
import { advanceVisit } from "./operations/advance-visit";
import { cancelVisit } from "./operations/cancel-visit";

/** Work of two days, of which the first is here. */
function relining() {
  const w = smallWorld();
  const change = { id: w.services.sweep, code: "SW", name: "Flue relined", priceMinor: 7900, minutes: 150, days: 2 };
  mustPerform(w.hogar, saveService, { ...serviceInput, ...change }, office);
  const { jobId } = w.booked();
  const days = w.hogar.store
    .sql<{ id: number }>("SELECT id FROM visits WHERE job_id = ? ORDER BY date")
    .all(jobId)
    .map(({ id }) => id);
  w.onTheDayOf(days[0]!);
  const step = (visitId: number, ...to: ("on site" | "done")[]) => {
    for (const one of to) mustPerform(w.hogar, advanceVisit, { visitId, to: one }, office);
  };
  const cancel = (visitId: number) => mustPerform(w.hogar, cancelVisit, { visitId, refundDeposit: true }, office);
  const stands = () => [
    one<{ state: string }>(w.hogar, "SELECT state FROM jobs WHERE id = ?", jobId).state,
    ...days.map((id) => one<{ state: string }>(w.hogar, "SELECT state FROM visits WHERE id = ?", id).state),
    one<{ n: number }>(w.hogar, "SELECT count(*) AS n FROM invoices").n,
  ];
  return { ...w, days, step, cancel, stands };
}

it("work of several days is asked about as it is booked: alone, and once", () => {
  const w = relining();
  const { sweep, survey } = w.services;
  const asked = (items: { serviceId: number; quantity?: number }[]) =>
    look(
      w.hogar,
      whyNot,
      { addressId: w.addresses[20]!.id, items, date: "2027-03-15", technicianId: null, only: false },
      office,
    );
  const alone = { fields: { "/items": "Flue relined takes several days. Book it on its own." } };
  expect(asked([{ serviceId: sweep, quantity: 2 }])).toMatchObject({ ok: false, problem: alone });
  expect(asked([{ serviceId: sweep }, { serviceId: survey }])).toMatchObject({ ok: false, problem: alone });
  expect(asked([{ serviceId: sweep }])).toMatchObject({ ok: true });
});

describe("cancelling a day of work of several days", () => {
  it("leaves the day on which somebody is at work, which is billed when it is done", () => {
    const w = relining();
    w.step(w.days[0]!, "on site");
    w.cancel(w.days[1]!);
    expect(w.stands()).toEqual(["agreed", "on site", "cancelled", 0]);
    w.step(w.days[0]!, "done");
    expect([w.stands(), firstBroken(w.hogar.store.sql)]).toEqual([["done", "done", "cancelled", 1], null]);
  });

  it("bills what was done, where nothing of it is left", () => {
    const w = relining();
    w.step(w.days[0]!, "on site", "done");
    w.cancel(w.days[1]!);
    expect([w.stands(), firstBroken(w.hogar.store.sql)]).toEqual([["done", "done", "cancelled", 1], null]);
  });

  it("cancels all of it before it has begun", () => {
    const w = relining();
    w.cancel(w.days[0]!);
    expect(w.stands()).toEqual(["cancelled", "cancelled", "cancelled", 0]);
  });
});

describe("moving a day of work of several days", () => {
  it("leaves the second after the first, which takes it along", () => {
    const w = relining();
    const [first, second] = w.days as [number, number];
    const dateOf = (id: number) => one<{ date: string }>(w.hogar, "SELECT date FROM visits WHERE id = ?", id).date;
    const move = (visitId: number, date: string) =>
      saidOf(
        perform(
          w.hogar,
          moveVisit,
          { visitId, date, fromMinute: 540, toMinute: 660, technicianIds: [w.technicians[0]!] },
          office,
        ),
      );
    const [begins, goesOn] = [dateOf(first), dateOf(second)];
    expect([move(second, begins), dateOf(second)]).toEqual([expect.stringContaining("work before it"), goesOn]);
    expect(move(second, "2027-03-17")).toBe("done");
    expect([dateOf(first), dateOf(second)]).toEqual([begins, "2027-03-17"]);
  });
});
