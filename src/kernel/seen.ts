import { ownCustomersDays } from "@/core/horizons";
import { type Actor, may, seesOnly } from "@/core/people/permissions";

/** For queries on customers `c`: those whose visits this person sees on the days around `@today`, by `@only` (null: all). */
export const seenCustomers = `(@only IS NULL OR EXISTS (SELECT 1 FROM jobs oj JOIN visits ov ON ov.job_id = oj.id JOIN placements op ON op.visit_id = ov.id
  WHERE oj.customer_id = c.id AND op.technician_id = @only
    AND op.date BETWEEN date(@today, '-${ownCustomersDays} days') AND date(@today, '+${ownCustomersDays} days')))`;

/** What of a customer somebody may see beside the name and the places. */
export const rightsOn = (actor: Actor) => ({
  only: seesOnly(actor),
  contacts: may(actor, "contacts.see"),
  notes: may(actor, "notes.see"),
  money: may(actor, "money.see"),
});
export type CustomerRights = ReturnType<typeof rightsOn>;
