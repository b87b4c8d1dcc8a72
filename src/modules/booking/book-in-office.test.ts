import { personActor } from "@/core/people/permissions";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { saveBookingRules } from "@/modules/placing/operations/booking-rules";
import { whyNot } from "@/modules/placing/views/why-not";
import { setup } from "@/modules/setup/views/setup";
import { office, one, serviceInput, smallWorld, visitor } from "@demo/small-world";
import { bookInOffice } from "./operations/book-in-office";

type World = ReturnType<typeof smallWorld>;
const greta = { name: "Greta Ring", mail: "greta@example.com", phone: "+1 555 0146", reminders: true };

/** What the office sends, for the first window that is offered or another one. */
const call = (world: World, more: object = {}, window = world.offers()[0]!) => {
  const { date, from, to } = window;
  return {
    addressId: world.addresses[10]!.id,
    items: [{ serviceId: world.services.sweep }],
    date,
    from,
    to,
    customer: greta,
    note: "Rings twice",
    ...more,
  };
};

describe("booking on the phone", () => {
  it("promises the window, tells the customer, asks no deposit and keeps who took the call", () => {
    const world = smallWorld();
    const { jobId } = mustPerform(
      world.hogar,
      bookInOffice,
      call(world, { items: [{ serviceId: world.services.survey }] }),
      office,
    );
    expect(
      one(
        world.hogar,
        "SELECT j.state, j.deposit_minor, j.booked_by, j.note, v.state AS visit, c.reminders FROM jobs j JOIN visits v ON v.job_id = j.id JOIN customers c ON c.id = j.customer_id WHERE j.id = ?",
        jobId,
      ),
    ).toEqual({
      state: "agreed",
      deposit_minor: 0,
      booked_by: "person 1 Odile Brandt",
      note: "Rings twice",
      visit: "promised",
      reminders: 1,
    });
    expect(world.hogar.store.sql("SELECT channel FROM messages WHERE job_id = ? ORDER BY channel").all(jobId)).toEqual([
      { channel: "mail" },
    ]);
  });

  it("takes what was answered into price and time, and asks for nothing that a page must ask", () => {
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
          {
            id: "flues",
            words: "How many flues?",
            billed: "Further flue",
            required: true,
            kind: "count",
            min: 1,
            max: 4,
            included: 1,
            each: { price: { how: "add", minor: 4500 }, minutes: 30 },
          },
        ],
      },
      office,
    );
    const window = world.offers(world.services.sweep, 10, { flues: 2 })[0]!;
    const { jobId } = mustPerform(
      world.hogar,
      bookInOffice,
      call(world, { items: [{ serviceId: world.services.sweep, answers: { flues: 2 } }] }, window),
      office,
    );
    expect(
      one(
        world.hogar,
        "SELECT j.total_minor, v.minutes FROM jobs j JOIN visits v ON v.job_id = j.id WHERE j.id = ?",
        jobId,
      ),
    ).toEqual({ total_minor: 12_400, minutes: 90 });
    expect(
      perform(
        world.hogar,
        bookInOffice,
        call(world, { customer: { ...greta, name: "Anton Lund", mail: "anton@example.com" } }, window),
        office,
      ).ok,
    ).toBe(true);
  });

  it("costs what Why not? says of the window, on our way or not", () => {
    const world = smallWorld();
    const data = look(world.hogar, setup, {}, office);
    mustPerform(
      world.hogar,
      saveBookingRules,
      { ...(data.ok ? data.value.rules : ({} as never)), onOurWayBp: 1000 },
      office,
    );
    // Far from where the technicians begin; on the first day somebody is there already.
    const far = world.addresses.length - 1;
    world.booked({ nth: far });
    const addressId = world.addresses[far]!.id;
    for (const [date, price] of [
      ["2027-03-10", 7110],
      ["2027-03-11", 7900],
    ] as const) {
      const view = look(
        world.hogar,
        whyNot,
        { addressId, items: [{ serviceId: world.services.sweep }], date, technicianId: null, only: false },
        office,
      );
      const offered = view.ok ? view.value.windows.filter((w) => w.offered) : [];
      const { window, totalMinor } = offered.at(-1)!;
      expect(totalMinor).toBe(price);
      const { jobId } = mustPerform(world.hogar, bookInOffice, { ...call(world), addressId, ...window }, office);
      expect(one(world.hogar, "SELECT total_minor FROM jobs WHERE id = ?", jobId)).toEqual({ total_minor: price });
    }
  });

  it("gives the work to the technician who was wished for, where that one can come", () => {
    const world = smallWorld();
    const petra = world.technicians[1]!;
    const { visitId } = mustPerform(world.hogar, bookInOffice, call(world, { technicianId: petra }), office);
    expect(one(world.hogar, "SELECT technician_id FROM placements WHERE visit_id = ?", visitId)).toEqual({
      technician_id: petra,
    });
  });

  it("joins a customer who is known, and refuses one who is not there", () => {
    const world = smallWorld();
    mustPerform(world.hogar, bookInOffice, call(world), office);
    const { id } = one<{ id: number }>(world.hogar, "SELECT id FROM customers");
    mustPerform(world.hogar, bookInOffice, call(world, { customer: { id } }), office);
    expect(one(world.hogar, "SELECT count(*) AS jobs, count(DISTINCT customer_id) AS customers FROM jobs")).toEqual({
      jobs: 2,
      customers: 1,
    });
    expect(perform(world.hogar, bookInOffice, call(world, { customer: { id: 999 } }), office)).toMatchObject({
      problem: { code: "not-found" },
    });
  });

  it("is refused where the window cannot be kept any more, with the nearest that can, and to whoever may not book", () => {
    const world = smallWorld();
    const window = world.offers()[0]!;
    while (world.offers().some((o) => o.from === window.from))
      world.booked({ window: { date: window.date, from: window.from, to: window.to }, nth: 11 });
    const sent = call(world, {}, window);
    expect(perform(world.hogar, bookInOffice, sent, office)).toMatchObject({
      problem: {
        code: "window-gone",
        details: { offers: expect.arrayContaining([expect.objectContaining({ date: expect.any(String) })]) },
      },
    });
    expect(one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM customers WHERE name = 'Greta Ring'").n).toBe(0);
    const bookkeeper = personActor({ id: 3, name: "Ines Varga", role: "bookkeeper", technicianId: null });
    for (const [actor, code] of [
      [visitor, "not-signed-in"],
      [bookkeeper, "not-allowed"],
    ] as const)
      expect(perform(world.hogar, bookInOffice, call(world), actor)).toMatchObject({ problem: { code } });
  });
});
