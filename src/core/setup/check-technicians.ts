import { addDays } from "@/core/time/dates";
import { type Span, subtractSpans } from "@/core/time/spans";
import { dateWords, listWords, weekdayNames } from "@/core/time/words";
import { type CheckedSetup, type CheckedTechnician, type Contradiction } from "./checked-setup";

export function ofTechnicians(setup: CheckedSetup): Contradiction[] {
  const last = addDays(setup.today, setup.horizonDays);
  return setup.technicians.flatMap((technician) => [
    ...closedWhileWorking(setup, technician),
    ...technician.skills.flatMap((held): Contradiction[] => {
      if (!held.until || held.until >= last) return [];
      const needed = setup.services.some((s) => s.active && s.skills.some((n) => n.skill === held.skill));
      if (!needed) return [];
      const gone = held.until < setup.today;
      return [
        {
          code: "skill-expires",
          part: "technicians",
          id: technician.id,
          sentence: `${technician.name}’s skill “${held.skill}” ${gone ? "ended" : "ends"} on ${dateWords(held.until)}${gone ? "" : ", while bookings are taken beyond it"}.`,
        },
      ];
    }),
  ]);
}

/** Hours at work in which the business is closed: no window is offered then. */
function closedWhileWorking({ opening }: CheckedSetup, { id, name, hours }: CheckedTechnician): Contradiction[] {
  if (opening.length === 0) return [];
  const days = weekdayNames.filter((_, day) => {
    const open = opening.filter((o) => o.weekday === day).map((o): Span => [o.opens, o.closes]);
    return subtractSpans(
      hours.filter((h) => h.weekday === day).map((h): Span => [h.opens, h.closes]),
      open,
    ).some(([from, to]) => to - from >= 60);
  });
  return days.length
    ? [
        {
          code: "outside-opening-hours",
          part: "technicians",
          id,
          sentence: `${name} works on ${listWords(days.map((d) => `${d}s`))} for an hour or more while the business is closed.`,
        },
      ]
    : [];
}
