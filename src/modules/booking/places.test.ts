import { mustPerform, perform, viewContext } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { offers, servicesAt } from "@/modules/front-door/views/front-door";
import { myCalendar, myVisit } from "@/modules/my-visit/views/my-visit";
import { answersFor } from "@/modules/placing/windows";
import { whyNot } from "@/modules/placing/views/why-not";
import { visitSheet } from "@/modules/visits/views/visit-sheet";
import { runDue } from "@/worker/loop";
import { office, one, saidOf, serviceInput, visitor, worldWithPost } from "@demo/small-world";
import { findWanted } from "./wanted";

const day = "2027-03-10";
const glassCut = { ...serviceInput, code: "GL", name: "Glass cut", priceMinor: 2000, minutes: 30 };

/** A business that also mends what is brought in. */
function world() {
  const small = worldWithPost();
  const glass = mustPerform(small.hogar, saveService, { ...glassCut, id: null, workPlace: "ours" }, office).id;
  const outside = small.town.addresses.find((a) => !a.postcode.startsWith("MW 1"))!;
  /** Windows of a day for a service at an address, as a customer is offered them. */
  const offered = (serviceId: number, addressId = small.addresses[10]!.id) => {
    const context = viewContext(small.hogar, visitor);
    const { visit } = findWanted(context, { addressId, items: [{ serviceId }] });
    return answersFor(context, visit, [day]).filter((a) => a.offered);
  };
  return { ...small, glass, outside, offered };
}

describe("work that is done at our place", () => {
  it("is offered wherever somebody lives, without a zone’s surcharge, where work at their door is not", () => {
    const w = world();
    const there = look(w.hogar, servicesAt, { addressId: w.outside.id }, visitor);
    expect(there).toMatchObject({
      value: {
        zone: null,
        services: [{ name: "Glass cut", workPlace: "ours", totalMinor: 2000 }],
      },
    });
    expect(w.offered(w.glass, w.outside.id).length).toBe(4);
    const windows = look(w.hogar, offers, { addressId: w.outside.id, items: [{ serviceId: w.glass }] }, visitor);
    expect(windows.ok && windows.value.windows.some((offer) => offer.onOurWay)).toBe(false);
    expect(() => w.offered(w.services.sweep, w.outside.id)).toThrow("not in our zones");
  });

  it("expects whoever does it at our place, and who is out has to come back", () => {
    const w = world();
    const [window] = w.offered(w.glass, w.outside.id);
    const { visitId } = w.booked({ serviceId: w.glass, window: window! });
    const { lng, lat, zone } = one<{ lng: number; lat: number; zone: number | null }>(
      w.hogar,
      "SELECT lng, lat, zone_id AS zone FROM visits WHERE id = ?",
      visitId,
    );
    const home = one<{ lng: number; lat: number }>(w.hogar, "SELECT lng, lat FROM business");
    expect([{ lng, lat }, zone]).toEqual([home, null]);
  });

  it("is booked on its own", () => {
    const w = world();
    const asked = { addressId: w.addresses[10]!.id, items: [{ serviceId: w.services.sweep }, { serviceId: w.glass }] };
    expect(() => findWanted(viewContext(w.hogar, visitor), asked)).toThrow();
    const said = look(
      w.hogar,
      whyNot,
      { addressId: w.outside.id, serviceId: w.glass, date: day, technicianId: null, only: false },
      office,
    );
    expect(said).toMatchObject({ ok: true, value: { zone: null } });
  });

  it("is told as what it is: in messages, on the customer's page and in their calendar, and to the office", async () => {
    const w = world();
    const { actor, visitId } = w.booked({ serviceId: w.glass, window: w.offered(w.glass)[0]! });
    await runDue(w.hogar);
    const mails = w.sent.filter((m) => m.subject.startsWith("Booked")).map((m) => m.body);
    expect(mails[0]).toContain("we expect you on Wednesday 10 March");
    expect(mails[0]).toContain("Glass cut at our place.");
    expect(look(w.hogar, myVisit, {}, actor)).toMatchObject({ value: { where: "At our place" } });
    expect(look(w.hogar, myCalendar, {}, actor)).toMatchObject({
      value: [{ words: expect.stringContaining("Come to us within this time.") }],
    });
    expect(look(w.hogar, visitSheet, { visitId }, office)).toMatchObject({
      value: { site: "At our place" },
    });
  });

  it("keeps what was agreed when the service is done elsewhere from then on", () => {
    const w = world();
    const { visitId } = w.booked({ serviceId: w.glass, window: w.offered(w.glass)[0]! });
    const change = perform(w.hogar, saveService, { ...glassCut, id: w.glass, workPlace: "site" }, office);
    expect(saidOf(change)).toBe("done");
    expect(one(w.hogar, "SELECT work_place FROM visits WHERE id = ?", visitId)).toEqual({ work_place: "ours" });
  });
});
