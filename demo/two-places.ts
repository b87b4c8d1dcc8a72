/** Pairs of visits for which somebody would be in two places at once: none, ever. Driving may pause for a call, and who shares a time is there together. */
export const inTwoPlaces = `WITH plan AS (SELECT p.*, v.shared_id, iif(v.work_place = 'afar', p.arrives, p.drive_from) AS begins
    FROM placements p JOIN visits v ON v.id = p.visit_id WHERE p.settled = 0)
  SELECT a.visit_id FROM plan a JOIN plan b ON a.technician_id = b.technician_id AND a.date = b.date AND a.visit_id < b.visit_id
    WHERE a.begins < b.leaves AND b.begins < a.leaves AND (a.shared_id IS NULL OR a.shared_id IS NOT b.shared_id)`;
