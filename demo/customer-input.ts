import type { SaveCustomer } from "@/modules/customers/inputs";
import type { Rows } from "@/store/rows";

/** A customer as their form has them, to change one thing or another. */
export const customerInput = (customer: Rows["customers"]): SaveCustomer => ({
  id: customer.id,
  name: customer.name,
  mail: customer.mail,
  phone: customer.phone,
  reachedBy: customer.reached_by,
  source: customer.source,
  tags: [],
  technicianNote: customer.technician_note,
  insideNote: customer.inside_note,
  paymentDays: customer.payment_days,
  bill: null,
  reminders: customer.reminders === 1,
  offers: customer.offers === 1,
});
