import { mustPerform, perform, viewContext } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { offers, servicesAt } from "@/modules/front-door/views/front-door";
import { myCalendar, myVisit } from "@/modules/my-visit/views/my-visit";
import { answersFor } from "@/modules/placing/windows";
import { whyNot } from "@/modules/placing/views/why-not";
import { recordErrand, recordTimeOff } from "@/modules/team/operations/absences";
import { visitSheet } from "@/modules/visits/views/visit-sheet";
import { runDue } from "@/worker/loop";
import { office, one, saidOf, serviceInput, visitor, worldWithPost } from "@demo/small-world";
import { findWanted } from "./wanted";

const day = "2027-03-10";

/** A business that also mends things brought in, and gives advice by phone. */
function world() {
  const small = worldWithPost();
  const service = (code: string, name: string, workPlace: "ours" | "afar") =>
    mustPerform(
      small.hogar,
      saveService,
      { ...serviceInput, id: null, code, name, priceMinor: 2000, minutes: 30, workPlace },
      office,
    ).id;
  const [glass, advice] = [service("GL", "Glass cut", "ours"), service("AD", "Advice call", "afar")];
  const outside = small.town.addresses.find((a) => !a.postcode.startsWith("MW 1"))!;
  /** Windows of a day for a service at an address, as a customer is offered them. */
  const offered = (serviceId: number, addressId = small.addresses[10]!.id) => {
    const context = viewContext(small.hogar, visitor);
    const { visit } = findWanted(context, { addressId, items: [{ serviceId }] });
    return answersFor(context, visit, [day]).filter((a) => a.offered);
  };
  return { ...small, glass, advice, outside, offered };
}
type World = ReturnType<typeof world>;
const onlyBram = ({ hogar, technicians }: World) =>
  mustPerform(
    hogar,
    recordTimeOff,
    { technicianId: technicians[1]!, firstDate: day, lastDate: day, reason: "Holiday" },
    office,
  );
const arrives = ({ hogar }: World, visitId: number) =>
  hogar.store.sql<{ arrives: number }>("SELECT arrives FROM placements WHERE visit_id = ?").get(visitId)?.arrives;
const driving = ({ hogar }: World, visitId: number) =>
  one<{ driving: number }>(hogar, "SELECT driving FROM placements WHERE visit_id = ?", visitId).driving;

describe("work that is done at our place or from afar", () => {
  it("is offered wherever somebody lives, without a zone’s surcharge, where work at their door is not", () => {
    const w = world();
    const there = look(w.hogar, servicesAt, { addressId: w.outside.id }, visitor);
    expect(there).toMatchObject({
      value: {
        zone: null,
        services: [
          { name: "Glass cut", workPlace: "ours", totalMinor: 2000 },
          { name: "Advice call", workPlace: "afar" },
        ],
      },
    });
    expect(w.offered(w.advice, w.outside.id).length).toBe(4);
    expect(() => w.offered(w.services.sweep, w.outside.id)).toThrow("not in our zones");
  });

  it("asks nobody to drive for a call, wherever they are", () => {
    const w = world();
    const [first] = w.offers();
    w.booked({ nth: 20, window: first! });
    const far = w.addresses.at(-1)!;
    for (const offer of w.offered(w.advice, far.id)) expect(offer).toMatchObject({ offered: true, extraDriving: 0 });
    const [window] = w.offered(w.advice, far.id);
    const windows = look(w.hogar, offers, { addressId: far.id, items: [{ serviceId: w.advice }] }, visitor);
    expect(windows.ok && windows.value.windows.some((offer) => offer.onOurWay)).toBe(false);
    const { visitId } = w.booked({ serviceId: w.advice, nth: w.addresses.length - 1, window: window! });
    expect(driving(w, visitId)).toBe(0);
  });

  it("keeps a call at its minute, and the drive around it pauses", () => {
    const w = world();
    onlyBram(w);
    const call = w.booked({ serviceId: w.advice, window: w.offered(w.advice)[0]! });
    const at = arrives(w, call.visitId);
    const sweeps = w.offered(w.services.sweep).map((window, i) => w.booked({ nth: 30 + i, window }));
    expect([arrives(w, call.visitId), driving(w, call.visitId)]).toEqual([at, 0]);
    expect(sweeps.map(({ visitId }) => arrives(w, visitId)).every((a) => a! >= at! + 30)).toBe(true);
  });

  it("is moved or waits for a person where an absence takes its minute", () => {
    const w = world();
    onlyBram(w);
    const { visitId } = w.booked({ serviceId: w.advice, window: w.offered(w.advice)[0]! });
    const before = arrives(w, visitId)!;
    const away = (fromMinute: number, toMinute: number) =>
      mustPerform(
        w.hogar,
        recordErrand,
        { technicianId: w.technicians[0]!, date: day, fromMinute, toMinute, title: "Dentist", addressId: null },
        office,
      ).freed;
    expect(away(480, 570)).toBe(0);
    expect(arrives(w, visitId)! - before).toBe(30);
    expect([away(570, 720), arrives(w, visitId)]).toEqual([1, undefined]);
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
      { addressId: w.outside.id, items: [{ serviceId: w.advice }], date: day, technicianId: null, only: false },
      office,
    );
    expect(said).toMatchObject({ ok: true, value: { zone: null } });
  });

  it("is told as what it is: in messages, on the customer's page and in their calendar, and to the office", async () => {
    const w = world();
    const at = (serviceId: number) => w.booked({ serviceId, window: w.offered(serviceId)[0]! });
    const [glass, advice] = [at(w.glass), at(w.advice)];
    await runDue(w.hogar);
    const mails = w.sent.filter((m) => m.subject.startsWith("Booked")).map((m) => m.body);
    expect(mails[0]).toContain("we expect you on Wednesday 10 March");
    expect(mails[0]).toContain("Glass cut at our place.");
    expect(mails[1]).toContain("we will call you on Wednesday 10 March");
    expect(look(w.hogar, myVisit, {}, glass.actor)).toMatchObject({ value: { where: "At our place" } });
    expect(look(w.hogar, myVisit, {}, advice.actor)).toMatchObject({ value: { where: "By phone, on +1 555 0142" } });
    expect(look(w.hogar, myCalendar, {}, advice.actor)).toMatchObject({
      value: [{ words: expect.stringContaining("We call you within this time.") }],
    });
    expect(look(w.hogar, visitSheet, { visitId: glass.visitId }, office)).toMatchObject({
      value: { site: "At our place" },
    });
  });

  it("keeps what was agreed when the service is done elsewhere from then on", () => {
    const w = world();
    const { visitId } = w.booked({ serviceId: w.advice, window: w.offered(w.advice)[0]! });
    const change = perform(
      w.hogar,
      saveService,
      {
        ...serviceInput,
        id: w.advice,
        code: "AD",
        name: "Advice call",
        priceMinor: 2000,
        minutes: 30,
        workPlace: "site",
      },
      office,
    );
    expect(saidOf(change)).toBe("done");
    expect(one(w.hogar, "SELECT work_place FROM visits WHERE id = ?", visitId)).toEqual({ work_place: "afar" });
  });
});
