import { lookOf } from "@/core/look/front-door";
import { sourceWords } from "@/core/people/sources";
import { Nothing } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";
import { readFrontDoor } from "@/store/front-door";

/** The links that lead to the front door, and what came by each: bookings, and what they are worth. */
export const sharing = defineView({
  name: "sharing",
  access: "setup.change",
  input: Nothing,
  read({ sql, hogar, business }) {
    const known = sql<{ slug: string; name: string }>("SELECT slug, name FROM sources ORDER BY name").all();
    const counted = sql<{ source: string; bookings: number; minor: number; earnedMinor: number }>(
      `SELECT source, count(*) AS bookings, sum(total_minor) AS minor,
          coalesce(sum((SELECT b.applied_minor FROM invoice_balances b WHERE b.job_id = j.id)), 0) AS earnedMinor
        FROM jobs j WHERE state <> 'cancelled' AND booked_by = 'front door' GROUP BY source
        ORDER BY bookings DESC`,
    ).all();
    const door = readFrontDoor(hogar.store);
    const nothing = { bookings: 0, minor: 0, earnedMinor: 0 };
    const nameOf = (slug: string) => known.find((k) => k.slug === slug)?.name;
    return {
      currency: business.currency,
      address: `${hogar.publicUrl}/book`,
      origin: hogar.publicUrl,
      name: business.name,
      sites: door.sites,
      accent: lookOf(door).accent,
      directory: {
        listed: door.listed,
        feed: `${hogar.publicUrl}/directory.json`,
        categories: sql<{ name: string; kind: string }>("SELECT name, kind FROM categories ORDER BY position").all(),
      },
      sources: known.map((k) => ({ ...k, ...(counted.find((c) => c.source === k.slug) ?? nothing) })),
      others: counted
        .filter((c) => !known.some((k) => k.slug === c.source))
        .map((c) => ({ ...c, name: sourceWords(c.source, nameOf) })),
    };
  },
});
