import { listWords, weekdayNames } from "@/core/time/words";
import { isNamed } from "@/core/windows/bars";
import { type CheckedSetup, type Contradiction } from "./checked-setup";

export function ofZones({ zones, technicians, windows }: CheckedSetup): Contradiction[] {
  return zones.flatMap((zone) => {
    const found: Contradiction[] = [];
    const say = (code: Contradiction["code"], sentence: string) =>
      found.push({ code, part: "zones", id: zone.id, sentence });
    const team = technicians.filter((t) => t.offered && isNamed(zone.technicians, t.id) && isNamed(t.zones, zone.id));
    const bare =
      technicians.length === 0
        ? []
        : weekdayNames.filter(
            (_, day) =>
              zone.weekdays & (1 << day) &&
              windows.some((w) => w.weekdays & (1 << day)) &&
              !team.some((t) => t.hours.some((h) => h.weekday === day)),
          );
    if (bare.length)
      say(
        "zone-without-technician",
        `${zone.name} is served on ${listWords(bare.map((d) => `${d}s`))}, but nobody works there then.`,
      );
    return found;
  });
}
