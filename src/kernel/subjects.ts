import { ownCustomersDays } from "@/core/horizons";
import { type Actor, seesOnly } from "@/core/people/permissions";
import { Refusal } from "@/core/problems";
import type { Store } from "@/store/database";

/**
 * Whose thing an operation or a view is about. Where an input names one, it is checked here for all of them: somebody
 * limited to own visits names only what belongs to these, a link only what is of its booking. `shared` is nobody's own:
 * a service, a zone, a technician whom a customer wishes for.
 */
type Subject =
  | "visit"
  | "job"
  | "repeat"
  | "customer"
  | "site"
  | "technician"
  | "invoice"
  | "payment"
  | "card"
  | "errand"
  | "thread"
  | "time off"
  | "shared";

/** The subjects in an input, by where they stand in it: `visitId`, `customer.id`, `technicianIds`. */
export type About = Readonly<Record<string, Subject>>;

const ownVisit = "SELECT 1 FROM placements p WHERE p.visit_id = v.id AND p.technician_id = @only";
/** What belongs to a technician: a query that has a row where `@id` is theirs (`@only`). */
const ofTechnician: Record<Exclude<Subject, "shared">, string> = {
  visit: `SELECT 1 FROM visits v WHERE v.id = @id AND EXISTS (${ownVisit})`,
  job: `SELECT 1 FROM visits v WHERE v.job_id = @id AND EXISTS (${ownVisit})`,
  repeat: `SELECT 1 FROM visits v WHERE v.repeat_id = @id AND EXISTS (${ownVisit})`,
  // A customer is theirs on the days around a visit to them.
  customer: `SELECT 1 FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.customer_id = @id AND EXISTS (${ownVisit})
    AND v.date BETWEEN date(@today, '-${ownCustomersDays} days') AND date(@today, '+${ownCustomersDays} days')`,
  site: `SELECT 1 FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.site_id = @id AND EXISTS (${ownVisit})`,
  technician: "SELECT 1 WHERE @id = @only",
  invoice: `SELECT 1 FROM invoices i JOIN visits v ON v.job_id = i.job_id WHERE i.id = @id AND EXISTS (${ownVisit})`,
  payment: `SELECT 1 FROM payments m JOIN visits v ON v.job_id = m.job_id WHERE m.id = @id AND EXISTS (${ownVisit})`,
  card: `SELECT 1 FROM cards k JOIN visits v ON v.job_id = k.job_id WHERE k.id = @id AND EXISTS (${ownVisit})`,
  thread: `SELECT 1 FROM threads h JOIN jobs j ON j.customer_id = h.customer_id JOIN visits v ON v.job_id = j.id WHERE h.id = @id AND EXISTS (${ownVisit})`,
  errand: "SELECT 1 FROM errands WHERE id = @id AND technician_id = @only",
  "time off": "SELECT 1 FROM time_off WHERE id = @id AND technician_id = @only",
};

/** Refuses where an input names what is not this actor's. */
export function mustBeTheirs(
  { sql, actor, today }: { sql: Store["sql"]; actor: Actor; today: string },
  about: About | undefined,
  input: unknown,
): void {
  if (!about || actor.kind === "system") return;
  const only = seesOnly(actor);
  if (actor.kind === "person" && only === null) return;
  for (const [path, subject] of Object.entries(about)) {
    if (subject === "shared") continue;
    for (const id of valuesAt(input, path.split(".")))
      if (actor.kind !== "person" || sql(ofTechnician[subject]).get({ id, only, today }) === undefined)
        throw new Refusal(subject === "visit" ? "not-your-visit" : "not-found");
  }
}

/** The ids at a path, in every entry of lists on the way. */
function valuesAt(value: unknown, [name, ...rest]: readonly string[]): number[] {
  if (Array.isArray(value)) return value.flatMap((entry) => valuesAt(entry, name === undefined ? [] : [name, ...rest]));
  if (name === undefined) return typeof value === "number" ? [value] : [];
  if (typeof value !== "object" || value === null) return [];
  return valuesAt((value as Record<string, unknown>)[name], rest);
}
