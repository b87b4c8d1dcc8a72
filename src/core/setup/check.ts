import { permissionsOf } from "../people/permissions";
import { ofServices } from "./check-services";
import { ofTechnicians } from "./check-technicians";
import { ofWindows } from "./check-windows";
import { ofZones } from "./check-zones";
import { type CheckedSetup, type Contradiction } from "./checked-setup";

/** Everything in the set-up that cannot work as it stands, and what is missing of it. */
export function contradictions(setup: CheckedSetup): Contradiction[] {
  return [
    ...missing(setup),
    ...ofServices(setup),
    ...ofTechnicians(setup),
    ...ofZones(setup),
    ...ofWindows(setup),
    ...ofPeople(setup),
  ];
}

function missing({ services, technicians, zones, windows }: CheckedSetup): Contradiction[] {
  const none = (part: Contradiction["part"], sentence: string): Contradiction => ({
    code: "nothing",
    part,
    id: null,
    sentence,
  });
  return [
    services.some((s) => s.active) ? [] : none("services", "There is no service that can be booked."),
    technicians.length ? [] : none("technicians", "There is nobody on the team."),
    zones.length ? [] : none("zones", "There is no zone: every address is outside."),
    windows.length ? [] : none("windows", "There is no window that could be promised."),
  ].flat();
}

/** Whoever signs in and finds nothing there. */
const ofPeople = ({ people }: CheckedSetup): Contradiction[] =>
  people
    .filter((p) => p.active)
    .flatMap((person): Contradiction[] => {
      const permissions = permissionsOf(person.role, person.given, person.taken);
      const say = (sentence: string): Contradiction[] => [
        { code: "no-way-in", part: "people", id: person.id, sentence },
      ];
      if (!permissions.includes("office.see") && !permissions.includes("field.work"))
        return say(`${person.name} may sign in, but may see neither the office nor the field.`);
      if (person.technicianId !== null) return [];
      if (!permissions.includes("office.see"))
        return say(
          `${person.name} signs in as a technician, but no technician belongs to the sign-in: there is nothing to see.`,
        );
      return permissions.includes("visits.all")
        ? []
        : say(`${person.name} sees only their own visits, but no technician belongs to the sign-in: there are none.`);
    });
