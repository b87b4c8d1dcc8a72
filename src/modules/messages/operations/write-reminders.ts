import { Id, input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { remindCustomer } from "../reminders";

/** Writes a customer the reminders of their visits that have fallen due. */
export const remindOfVisits = defineOperation({
  name: "remind-of-visits",
  access: "system",
  input: input({ customerId: Id }),
  run: (context, { customerId }) => remindCustomer(context, customerId),
});
