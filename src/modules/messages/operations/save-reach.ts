import { Refusal } from "@/core/problems";
import { Id, input, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { ChannelName, LanguageName } from "../inputs";
import { beginChannel, endChannel } from "../receiving";
import { withhold } from "@/modules/customers/consents";
import { changeCustomer } from "@/modules/customers/customers";

const Wish = { purpose: OneOf(["reminders", "offers"]), channel: ChannelName, wanted: Type.Boolean() };

/** As the office hears it from the customer. */
export const saveWithheld = defineOperation({
  name: "save-withheld",
  access: "customers.change",
  about: { customerId: "customer" },
  input: input({ customerId: Id, ...Wish }),
  run: (context, { customerId, ...wish }) => withhold(context, customerId, wish),
});

/** In which language and by which clock somebody is written to; null: as the business. */
export const saveLanguage = defineOperation({
  name: "save-language",
  access: "customers.change",
  about: { customerId: "customer" },
  input: input({ customerId: Id, language: OrNull(LanguageName), timeZone: OrNull(Type.String({ maxLength: 60 })) }),
  run(context, { customerId, language, timeZone }) {
    if (timeZone !== null && !isZone(timeZone))
      throw new Refusal("invalid-input", { fields: { "/timeZone": "Choose a time zone, such as Europe/Lisbon." } });
    changeCustomer(context, customerId, { language, time_zone: timeZone });
    // Their reminders fall by the clock that counts now.
    context
      .sql(
        `UPDATE reminder_looks SET next_at = 0
        WHERE visit_id IN (SELECT v.id FROM jobs j JOIN visits v ON v.job_id = j.id WHERE j.customer_id = ?)`,
      )
      .run(customerId);
  },
});

function isZone(timeZone: string): boolean {
  try {
    new Intl.DateTimeFormat("en", { timeZone });
    return true;
  } catch {
    return false;
  }
}

/** Whether anything at all goes to an address on a channel: as its owner has said on the phone. */
export const saveStop = defineOperation({
  name: "save-stop",
  access: "contacts.see",
  about: { customerId: "customer" },
  input: input({ customerId: Id, channel: ChannelName, stopped: Type.Boolean() }),
  run(context, { customerId, channel, stopped }) {
    const customer = context
      .sql<{ mail: string; phone: string }>("SELECT mail, phone FROM customers WHERE id = ?")
      .get(customerId);
    const address = channel === "mail" ? customer?.mail : customer?.phone;
    if (!address) throw new Refusal("not-found");
    const how = "Said to the office";
    if (stopped) endChannel(context, { channel, address, customerId, how });
    else beginChannel(context, { channel, address, customerId, how });
  },
});
