/** For queries on customers `c`: those whose visits this person sees, by the parameter `only` (null: all). */
export const seenCustomers =
  "(@only IS NULL OR EXISTS (SELECT 1 FROM jobs oj JOIN visits ov ON ov.job_id = oj.id JOIN placements op ON op.visit_id = ov.id WHERE oj.customer_id = c.id AND op.technician_id = @only))";
