import { inTwoPlaces } from "./two-places";
import { epochMinute } from "@/core/time/local";
import { type Hogar } from "@/kernel/hogar";
import { look } from "@/kernel/view";
import { money } from "@/modules/money/views/money";
import { ownViews } from "@/registry/modules";
import { openHogar } from "@/registry/open-hogar";
import { office } from "./small-world";
import { makeTown } from "./town";
import { makeWorld } from "./world";

const now = epochMinute("2027-03-09", 605, "Europe/Lisbon") * 60_000;

async function world(seed: number): Promise<Hogar> {
  let clock = 0;
  const hogar = openHogar({ folder: null, clock: () => clock, town: makeTown(seed), env: {} });
  await makeWorld(hogar, (ms) => (clock = ms), now, { seed, historyDays: 3 });
  return hogar;
}
const rows = (hogar: Hogar, query: string) => hogar.store.sql(query).all();

describe("the demo world", () => {
  let hogar: Hogar;
  beforeAll(async () => void (hogar = await world(7)), 600_000);

  it("is the same from the same seed and day", async () => {
    const jobs =
      "SELECT j.id, c.name, j.total_minor, v.date, v.window_from, v.state FROM jobs j JOIN customers c ON c.id = j.customer_id JOIN visits v ON v.job_id = j.id ORDER BY j.id";
    expect(rows(await world(7), jobs)).toEqual(rows(hogar, jobs));
  }, 600_000);

  it("has nobody in two places and every planned visit within its window", () => {
    expect(rows(hogar, inTwoPlaces)).toEqual([]);
    expect(
      rows(
        hogar,
        "SELECT p.visit_id FROM placements p JOIN visits v ON v.id = p.visit_id WHERE p.settled = 0 AND p.arrives NOT BETWEEN v.window_from AND v.window_to",
      ),
    ).toEqual([]);
  });

  it("sends only people with the skill, on days they work", () => {
    expect(
      rows(
        hogar,
        `SELECT p.visit_id FROM placements p JOIN visits v ON v.id = p.visit_id JOIN service_skills n ON n.service_id = v.service_id
      WHERE NOT EXISTS (SELECT 1 FROM technician_skills h WHERE h.technician_id = p.technician_id AND h.skill_id = n.skill_id AND (h.valid_until IS NULL OR h.valid_until >= p.date))`,
      ),
    ).toEqual([]);
    expect(
      rows(
        hogar,
        "SELECT p.visit_id FROM placements p JOIN time_off o ON o.technician_id = p.technician_id AND o.from_minute IS NULL AND p.date BETWEEN o.first_date AND o.last_date",
      ),
    ).toEqual([]);
  });

  it("has money whose sums agree, and no message sent twice", () => {
    const view = look(hogar, money, {}, office);
    expect(view.ok && view.value.totals).toMatchObject({ agrees: true, received: expect.any(Number) });
    expect(rows(hogar, "SELECT occasion FROM messages GROUP BY occasion HAVING count(*) > 1")).toEqual([]);
  });

  it("sent nothing of its own accord outside the allowed hours", () => {
    const sent = hogar.store
      .sql<{ sent_at: number }>("SELECT sent_at FROM messages WHERE sent_at IS NOT NULL AND occasion LIKE '%reminder%'")
      .all();
    expect(sent.length).toBeGreaterThan(0);
    for (const { sent_at } of sent) {
      const minute =
        Math.floor(sent_at / 60_000) - epochMinute(new Date(sent_at).toISOString().slice(0, 10), 0, "Europe/Lisbon");
      expect(minute >= 480 && minute <= 1200).toBe(true);
    }
  });

  it("has something for a person to do: somebody ill, a failed card", () => {
    const view = look(hogar, ownViews.today, {}, office);
    expect(view.ok && view.value.needs.map((n) => n.kind)).toEqual(
      expect.arrayContaining(["unplaced", "failed card", "expiring"]),
    );
  });
});
