import { durationWords, listWords, weekdayNames } from "@/core/time/words";
import { isNamed } from "@/core/windows/bars";
import { firstEnd } from "./check-windows";
import { type CheckedSetup, type Contradiction } from "./checked-setup";

export function ofZones({ zones, technicians, horizonDays, windows }: CheckedSetup): Contradiction[] {
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
    if (zone.noticeMinutes >= horizonDays * 1440)
      say(
        "notice-beyond-horizon",
        `${zone.name} asks for ${durationWords(zone.noticeMinutes)} of notice, but bookings are taken only ${horizonDays} days ahead.`,
      );
    if (
      windows.length &&
      !windows.some(
        (w) => (w.weekdays & zone.weekdays) !== 0 && w.from >= zone.serveFrom && firstEnd(w) <= zone.serveTo,
      )
    )
      say("window-outside-hours", `No window lies within the hours and days of ${zone.name}.`);
    return found;
  });
}
