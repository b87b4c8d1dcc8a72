import { justOne } from "@/core/catalogue/items";
import { addDays } from "@/core/time/dates";
import type { Hogar } from "@/kernel/hogar";
import { mustPerform, viewContext } from "@/kernel/operation";
import { itemsByPattern, readJobPattern } from "@/modules/catalogue/job-patterns";
import { saveJobPattern } from "@/modules/catalogue/operations/save-job-pattern";
import { agreeRepeat } from "@/modules/repeats/operations/agree-repeat";
import { setRepeatWork } from "@/modules/repeats/operations/ways";
import { office } from "./set-up";

/** Pieces of work with a name, and repeats that are done by them: a longer first visit, every fourth a big one, and a landlord's houses together. */
export function workByPatterns(hogar: Hogar): void {
  const patterns = namePatterns(hogar);
  const { sql } = hogar.store;
  const of = (code: string) =>
    sql<{ id: number }>(
      "SELECT r.id FROM repeats r JOIN services s ON s.id = r.service_id WHERE s.code = ? AND r.state = 'active' ORDER BY r.id",
    )
      .all(code)
      .map(({ id }) => id);
  for (const repeatId of of("PO").slice(6, 10))
    mustPerform(
      hogar,
      setRepeatWork,
      { repeatId, patternId: null, firstPatternId: null, nth: { every: 4, patternId: patterns.ovenWhole } },
      office,
    );
  for (const repeatId of of("SW").slice(0, 3))
    mustPerform(
      hogar,
      setRepeatWork,
      { repeatId, patternId: patterns.sweepSmall, firstPatternId: patterns.sweepAndStove, nth: null },
      office,
    );
  housesTogether(hogar, patterns.certificate);
}

function namePatterns(hogar: Hogar) {
  const service = (code: string) =>
    hogar.store.sql<{ id: number }>("SELECT id FROM services WHERE code = ?").get(code)!.id;
  const name = (words: string, codes: readonly string[], more: Partial<Parameters<typeof save>[0]> = {}) =>
    save({ name: words, items: codes.map((code) => justOne(service(code))), ...more });
  const save = (pattern: {
    name: string;
    items: ReturnType<typeof justOne>[];
    note?: string;
    checklist?: { id: string; words: string; required: boolean }[];
    minutes?: number | null;
  }) =>
    mustPerform(
      hogar,
      saveJobPattern,
      { id: null, note: "", checklist: [], minutes: null, crew: null, active: true, ...pattern },
      office,
    ).id;
  return {
    sweepSmall: name("Small sweep", ["SW"], {
      minutes: 30,
      note: "Flue and cap only. Look at the stove door and write down what is worn.",
      checklist: [{ id: "seal", words: "Door seal looked at", required: false }],
    }),
    sweepAndStove: name("Sweep and stove service", ["SW", "ST"], {
      minutes: 105,
      note: "New rope seal on the door; take the wide one along.",
      checklist: [
        { id: "seal", words: "Rope seal replaced", required: true },
        { id: "draught", words: "Draught measured and written down", required: true },
      ],
    }),
    ovenWhole: name("Oven, flue and bricks", ["PO"], {
      minutes: 110,
      note: "Oven cold by seven. Bricks of the dome looked at from inside.",
      checklist: [{ id: "bricks", words: "Dome bricks looked at", required: true }],
    }),
    certificate: name("House certificate", ["LC"], {
      minutes: 75,
      note: "The tenant opens; the certificate goes to the landlord alone.",
      checklist: [{ id: "alarm", words: "Smoke alarm pressed", required: true }],
    }),
  };
}

/** A landlord whose houses are looked after in one agreement, on one day, one after the other. */
function housesTogether(hogar: Hogar, patternId: number): void {
  const { sql } = hogar.store;
  const context = viewContext(hogar, office);
  const owner = sql<{ id: number }>(
    `SELECT c.id FROM customers c JOIN customer_tags t ON t.customer_id = c.id JOIN sites s ON s.customer_id = c.id
      WHERE t.tag = 'landlord' AND c.archived_at IS NULL AND c.erased_at IS NULL
      GROUP BY c.id HAVING count(*) >= 3
      ORDER BY EXISTS (SELECT 1 FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.customer_id = c.id AND v.state = 'promised') DESC, c.id
      LIMIT 1`,
  ).get();
  if (!owner) return;
  const sites = sql<{ id: number }>(
    "SELECT id FROM sites WHERE customer_id = ? AND archived_at IS NULL AND zone_id IS NOT NULL ORDER BY id LIMIT 3",
  ).all(owner.id);
  const [first, ...others] = sites.map(({ id }, i) => ({
    siteId: id,
    from: addDays(context.today, 24),
    fromMinute: 540 + 120 * i,
    toMinute: 660 + 120 * i,
  }));
  mustPerform(
    hogar,
    agreeRepeat,
    {
      customerId: owner.id,
      ...first!,
      otherSites: others,
      items: itemsByPattern(readJobPattern(context, patternId)),
      rule: "FREQ=MONTHLY;INTERVAL=6",
      technicianId: null,
      onClosed: "nearest",
      comes: "set",
      leewayDays: null,
      counted: "calendar",
    },
    office,
  );
}
