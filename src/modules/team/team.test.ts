import { personActor } from "@/core/people/permissions";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { customers } from "@/modules/customers/views/customers";
import { handIncoming } from "@/modules/people/operations/hand-incoming";
import { savePerson } from "@/modules/people/operations/save-person";
import { recordErrand } from "@/modules/team/operations/absences";
import { saveTechnician, setTechnicianActive } from "@/modules/team/operations/save-technician";
import { ownViews } from "@/registry/modules";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { visitSheet } from "@/modules/visits/views/visit-sheet";
import { firstPage } from "@/ui/first-page";
import { office, one, saidOf, smallWorld } from "@demo/small-world";

type Technician = ReturnType<ReturnType<typeof smallWorld>["setUp"]>["technicians"][number];

describe("the team", () => {
  it("limits itself to zones, services and hours, and the office places whom customers are not offered", () => {
    const world = smallWorld();
    const [bram, petra] = world.setUp().technicians as [Technician, Technician];
    const save = (t: typeof bram, more: object) =>
      mustPerform(
        world.hogar,
        saveTechnician,
        { id: t.id, name: t.name, phone: t.phone, skills: t.skills, hours: t.hours, ...more },
        office,
      );
    const who = (serviceId?: number) =>
      [
        ...new Set(world.offers(serviceId).flatMap((o) => (o.offered ? o.technicians.map((t) => Number(t.id)) : []))),
      ].sort();
    save(bram, { services: [world.services.survey] });
    expect([who(), who(world.services.survey)]).toEqual([[petra.id], [bram.id, petra.id]]);
    save(petra, { offered: false });
    expect([who(), who(world.services.survey)]).toEqual([[], [bram.id]]);
    save(bram, { services: [], zones: [], mostMinutes: 30 });
    expect(who()).toEqual([]);
  });

  it("that leaves goes out of the plan, keeps its history and cannot sign in; back again, it works as before", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    const placed = () =>
      world.hogar.store
        .sql<{ technician_id: number }>("SELECT technician_id FROM placements WHERE visit_id = ?")
        .all(visitId)
        .map((p) => p.technician_id);
    const [id] = placed() as [number];
    mustPerform(
      world.hogar,
      savePerson,
      {
        id: null,
        name: "Bram Okafor",
        mail: "bram@marrowick.example",
        role: "technician",
        password: "open the door",
        technicianId: id,
        active: true,
      },
      office,
    );
    expect(mustPerform(world.hogar, setTechnicianActive, { id, active: false }, office)).toEqual({ freed: 1 });
    expect([
      placed(),
      one(world.hogar, "SELECT state FROM visits WHERE id = ?", visitId),
      one(world.hogar, "SELECT active FROM people WHERE technician_id = ?", id),
    ]).toEqual([[], { state: "promised" }, { active: 0 }]);
    expect(world.offers().every((o) => o.offered && o.technicians.every((t) => Number(t.id) !== id))).toBe(true);
    mustPerform(world.hogar, setTechnicianActive, { id, active: true }, office);
    expect(one(world.hogar, "SELECT active FROM people WHERE technician_id = ?", id)).toEqual({ active: 1 });
    expect(world.offers().some((o) => o.offered && o.technicians.some((t) => Number(t.id) === id))).toBe(true);
  });

  it("is on no two errands at two places at once", () => {
    const world = smallWorld();
    const errand = (fromMinute: number, toMinute: number, nth: number | null) =>
      saidOf(
        perform(
          world.hogar,
          recordErrand,
          {
            technicianId: world.technicians[0]!,
            date: "2027-03-10",
            fromMinute,
            toMinute,
            title: "Fetch parts",
            addressId: nth === null ? null : world.addresses[nth]!.id,
          },
          office,
        ),
      );
    expect(errand(540, 600, 3)).toBe("done");
    expect(errand(570, 630, 9)).toBe(
      "“Fetch parts” takes them elsewhere then, 9–10. Choose another time, or remove it first.",
    );
    expect([errand(600, 660, 9), errand(570, 630, null)]).toEqual(["done", "done"]);
  });

  it("that leaves while at work finishes what is under way", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    const technician = () =>
      world.hogar.store
        .sql<{ technician_id: number }>("SELECT technician_id FROM placements WHERE visit_id = ?")
        .get(visitId)?.technician_id;
    const id = technician()!;
    world.onTheDayOf(visitId);
    mustPerform(world.hogar, advanceVisit, { visitId, to: "on site" }, office);
    expect([mustPerform(world.hogar, setTechnicianActive, { id, active: false }, office).freed, technician()]).toEqual([
      0,
      id,
    ]);
  });

  it("sees only its own visits where that is said, in every list and by number too", () => {
    const world = smallWorld();
    const first = world.booked({ name: "Mira Okonjo" });
    const second = world.booked({ name: "Jonas Lund", nth: 20 });
    const owner = one<{ technician_id: number }>(
      world.hogar,
      "SELECT technician_id FROM placements WHERE visit_id = ?",
      first.visitId,
    ).technician_id;
    const other = world.technicians.find((t) => t !== owner)!;
    world.hogar.store.db.transaction(() =>
      world.hogar.store.audit.under({ at: 0, actor: "test", operation: "test" }, () => {
        world.hogar.store.sql("DELETE FROM placements WHERE visit_id = ?").run(second.visitId);
        world.hogar.store
          .sql(
            "INSERT INTO placements SELECT id, ?, date, window_from, 0, window_from, window_from + 60, 0 FROM visits WHERE id = ?",
          )
          .run(other, second.visitId);
      }),
    )();
    const limited = personActor({
      id: 1,
      name: "Limited",
      role: "dispatcher",
      technicianId: owner,
      taken: ["visits.all"],
    });
    const seen = look(world.hogar, customers, firstPage<"customers">("name"), limited);
    expect(seen.ok && seen.value.rows.map((r) => r.name)).toEqual(["Mira Okonjo"]);
    expect([
      look(world.hogar, visitSheet, { visitId: first.visitId }, limited).ok,
      look(world.hogar, visitSheet, { visitId: second.visitId }, limited),
    ]).toMatchObject([true, { problem: { code: "not-your-visit" } }]);
    const today = look(world.hogar, ownViews.today, {}, limited);
    expect(today.ok && today.value.technicians.map((t) => t.id)).toEqual([owner]);
  });

  it("hands incoming over to somebody who may book", () => {
    const world = smallWorld();
    const person = (name: string, role: "dispatcher" | "bookkeeper") =>
      mustPerform(
        world.hogar,
        savePerson,
        {
          id: null,
          name,
          mail: `${role}@marrowick.example`,
          role,
          password: "open the door",
          technicianId: null,
          active: true,
        },
        office,
      ).id;
    const [tomas, ines] = [person("Tomas Quill", "dispatcher"), person("Ines Varga", "bookkeeper")];
    const dispatcher = personActor({ id: tomas, name: "Tomas Quill", role: "dispatcher", technicianId: null });
    expect(saidOf(perform(world.hogar, handIncoming, { personId: tomas }, dispatcher))).toMatch(/role does not allow/);
    mustPerform(world.hogar, handIncoming, { personId: tomas }, office);
    expect(saidOf(perform(world.hogar, handIncoming, { personId: ines }, dispatcher))).toMatch(/may not book/);
    mustPerform(world.hogar, handIncoming, { personId: null }, dispatcher);
    expect(
      saidOf(
        perform(
          world.hogar,
          savePerson,
          {
            id: 1,
            name: "Odile Brandt",
            mail: "odile@marrowick.example",
            role: "owner",
            technicianId: null,
            active: true,
            taken: ["people.change"],
          },
          office,
        ),
      ),
    ).toBe("Somebody must remain the owner.");
  });
});
