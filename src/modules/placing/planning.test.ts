import { Refusal } from "@/core/problems";
import { checkInput } from "@/kernel/check-input";
import { mustPerform, viewContext } from "@/kernel/operation";
import { saveBusiness } from "@/modules/business/operations/save-business";
import { SaveTechnician } from "@/modules/team/operations/save-technician";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { office, one, smallWorld, visitor } from "@demo/small-world";
import { loadPlanning } from "./planning";

const date = "2027-03-10";
type World = ReturnType<typeof smallWorld>;
const planning = (world: World, without?: number) =>
  loadPlanning(viewContext(world.hogar, visitor), [date], without === undefined ? [] : [without]);

describe("the plan as it stands", () => {
  it("holds what is placed, in order, and can leave a visit out", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    const { technician_id: id } = one<{ technician_id: number }>(world.hogar, "SELECT * FROM placements");
    expect(
      planning(world)
        .dayOf(id, date)
        .day.stops.map((s) => s.visitId),
    ).toEqual([visitId]);
    expect(planning(world, visitId).dayOf(id, date).day.stops).toEqual([]);
  });

  it("goes on from the last visit that is over, at the time it ended", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    const {
      technician_id: id,
      lng,
      lat,
    } = one<{ technician_id: number; lng: number; lat: number }>(
      world.hogar,
      "SELECT p.technician_id, v.lng, v.lat FROM placements p JOIN visits v ON v.id = p.visit_id",
    );
    world.at(date, 545);
    mustPerform(world.hogar, advanceVisit, { visitId, to: "on site" }, office);
    world.at(date, 640);
    mustPerform(world.hogar, advanceVisit, { visitId, to: "done" }, office);
    const plan = planning(world);
    const { day } = plan.dayOf(id, date);
    expect(day.start).toBe(plan.place({ lng, lat }, 1));
    expect(day.stops).toEqual([]);
    expect(day.spans[0]![0] - day.spans[1]![0]).toBe(640 - 780);
  });

  it("adds the business's safety margin to every drive", () => {
    const world = smallWorld();
    const [a, b] = [world.addresses[0]!, world.addresses.at(-1)!];
    const drive = () => {
      const { place, travel } = planning(world);
      return travel(place(a, 1), place(b, 1));
    };
    const margin = (travelMarginMinutes: number, travelMarginPercent: number) =>
      mustPerform(
        world.hogar,
        saveBusiness,
        {
          name: "M",
          phone: "+1 555 0100",
          mail: "office@marrowick.example",
          paymentDays: 14,
          travelMarginMinutes,
          travelMarginPercent,
        },
        office,
      );
    margin(0, 0);
    const bare = drive();
    expect(bare).toBe(((roads) => roads.minutes(roads.place(a), roads.place(b)))(world.hogar.gateways.roads));
    margin(3, 50);
    expect(drive()).toBe(Math.ceil(bare * 1.5) + 3);
    const { place, travel } = planning(world);
    expect(travel(place(a, 1), place(a, 1))).toBe(0);
  });
});

describe("what is typed in", () => {
  const technician = { id: null, name: "Hanna Sorel", phone: "+1 555 0114", skills: [], hours: [] };
  const fields = (input: unknown): Record<string, string> | undefined => {
    try {
      checkInput(SaveTechnician, input);
      return undefined;
    } catch (error) {
      return (error as Refusal).problem.fields;
    }
  };

  it("is told apart field by field, in sentences", () => {
    expect(fields(technician)).toBeUndefined();
    expect(fields({ ...technician, name: "", phone: "12" })).toEqual({
      "/name": "Please fill this in.",
      "/phone": "Write a phone number, such as +1 555 0142.",
    });
    expect(fields({ ...technician, hours: [{ weekday: 7, opens: 0.5, closes: 3000 }] })).toEqual({
      "/hours/0/weekday": "Enter 6 or less.",
      "/hours/0/opens": "Enter a whole number.",
      "/hours/0/closes": "Enter 2880 or less.",
    });
    expect(fields({ ...technician, skills: [{ name: "gas", level: 1, validUntil: "soon" }] })).toMatchObject({
      "/skills/0/validUntil": "Write a date, such as 2027-03-11.",
    });
    expect(fields({})).toMatchObject({ "/name": "Please fill this in." });
  });

  it("is never changed by being checked", () => {
    const input = { ...technician, extra: "x" };
    expect(fields(input)).toEqual({ "/": "“extra” is not known here." });
    expect(input).toEqual({ ...technician, extra: "x" });
  });
});
