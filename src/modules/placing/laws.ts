import type { Law } from "@/kernel/laws";

export const placingLaws: readonly Law[] = [
  {
    says: "Nobody is in two places at once.",
    breaks: `SELECT t.name || ' on ' || a.date || ': visits ' || a.visit_id || ' and ' || b.visit_id AS what
      FROM placements a JOIN placements b ON b.technician_id = a.technician_id AND b.date = a.date AND b.visit_id > a.visit_id
        JOIN technicians t ON t.id = a.technician_id JOIN visits v ON v.id = a.visit_id JOIN visits w ON w.id = b.visit_id
      WHERE a.settled = 0 AND b.settled = 0
        AND iif(v.work_place = 'afar' OR w.work_place = 'afar', a.arrives, a.drive_from) < b.leaves
        AND a.leaves > iif(v.work_place = 'afar' OR w.work_place = 'afar', b.arrives, b.drive_from)
        AND (v.shared_id IS NULL OR v.shared_id IS NOT w.shared_id)`,
  },
  {
    says: "A visit stands on the day for which it is placed.",
    breaks: `SELECT 'visit ' || v.id || ' of ' || v.date || ', placed on ' || p.date AS what
      FROM placements p JOIN visits v ON v.id = p.visit_id WHERE p.settled = 0 AND p.date <> v.date`,
  },
];
