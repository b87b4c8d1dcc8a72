import { contradictions } from "@/core/setup/check";
import { Nothing } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";
import { besideKnown, kitNames, readKit } from "../kits";
import { setup } from "./setup";

/** How far the set-up is, what contradicts itself, and the starter kits to begin with. */
export const firstSteps = defineView({
  name: "first-steps",
  access: "setup.change",
  input: Nothing,
  read(context) {
    const { sql } = context;
    const data = setup.read(context, {});
    const count = (table: string) => sql<{ n: number }>(`SELECT count(*) AS n FROM ${table}`).get()!.n;
    return {
      counts: {
        business: data.business.place.line ? 1 : 0,
        services: data.services.filter((s) => s.active).length,
        technicians: data.technicians.length,
        zones: data.zones.length,
        windows: data.rules.windows.length,
        people: data.people.filter((p) => p.active).length,
        bookings: count("jobs"),
      },
      contradictions: contradictions({
        today: context.today,
        horizonDays: data.rules.horizonDays,
        services: data.services.map((s) => ({
          ...s,
          skills: s.skills.map((n) => ({ skill: n.name, level: n.level })),
        })),
        technicians: data.technicians.map((t) => ({
          ...t,
          skills: t.skills.map((s) => ({ skill: s.name, level: s.level, until: s.validUntil })),
        })),
        zones: data.zones,
        windows: data.rules.windows,
        opening: data.opening,
        people: data.people,
      }),
      /** What can be booked, to be asked of one after the other whether it can. */
      offered: data.services.filter((s) => s.active).map(({ id, name }) => ({ id, name })),
      kits: kitNames().map((name) => {
        const kit = readKit(name);
        return {
          id: name,
          name: kit.name,
          about: kit.about,
          services: kit.services.map((s) => ({
            code: s.code,
            name: s.name,
            description: s.description,
            priceMinor: s.priceMinor,
            minutes: s.minutes,
            skills: s.skills,
            there: besideKnown(s, data.services) === null,
          })),
        };
      }),
      currency: data.currency,
    };
  },
});
