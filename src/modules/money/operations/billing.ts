import { linesWithDiscount, priceOf } from "@/core/money/papers";
import { totalOf } from "@/core/money/amounts";
import { Refusal } from "@/core/problems";
import { DateText, Id, input, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { billCustomer, lastOfMonthBefore } from "../billing";
import { billingOf, storeInvoice } from "../invoicing";

const Text = Type.String({ maxLength: 4000 });
const Share = Type.Integer({ minimum: 0, maximum: 10_000 });
const MakeInvoice = input({
  customerId: Id,
  lines: Type.Array(
    input({
      description: Type.String({
        minLength: 1,
        maxLength: 200,
        pattern: "\\S",
        patternSentence: "Say what this line is for.",
      }),
      quantity: Type.Number({ exclusiveMinimum: 0, maximum: 9999 }),
      unitMinor: Type.Integer({ minimum: -100_000_000, maximum: 100_000_000 }),
      taxBp: Share,
      discountBp: Share,
    }),
    { minItems: 1, maxItems: 200 },
  ),
  /** Off all of it. */
  discountBp: Share,
  before: Text,
  after: Text,
  /** Null: by the customer's terms. */
  dueDate: OrNull(DateText),
  /** Given once per form, so that sending it twice makes one. */
  key: Type.String({ minLength: 8, maxLength: 60 }),
});

/** An invoice made by hand, with lines of its own. The same key makes one. */
export const makeInvoice = defineOperation({
  name: "make-invoice",
  access: "money.change",
  about: { customerId: "customer" },
  input: MakeInvoice,
  run(context, { customerId, lines, discountBp, before, after, dueDate, key }) {
    const { sql, business, today } = context;
    const known = sql<{ id: number }>("SELECT id FROM invoices WHERE form_key = ?").get(key);
    if (known) return { invoiceId: known.id };
    if (!sql("SELECT 1 FROM customers WHERE id = ? AND erased_at IS NULL AND merged_into IS NULL").get(customerId))
      throw new Refusal("not-found", { sentence: "This customer is not there any more." });
    if (dueDate !== null && dueDate < today)
      throw new Refusal("invalid-input", { fields: { "/dueDate": "It is due today at the soonest." } });
    const pricesIncludeTax = business.prices_include_tax === 1;
    const priced = lines.map((line) => priceOf(line, pricesIncludeTax));
    const all = linesWithDiscount(priced, { discountBp, words: `Discount ${discountBp / 100}%`, pricesIncludeTax });
    if (totalOf(all).totalMinor <= 0)
      throw new Refusal("invalid-input", {
        fields: { "/lines": "An invoice asks for something: its sum is above nothing." },
      });
    const invoiceId = storeInvoice(context, {
      customerId,
      lines: all.map((line) => ({ ...line, jobId: null })),
      before: before.trim(),
      after: after.trim(),
      formKey: key,
      ...(dueDate !== null && { dueDate }),
    });
    return { invoiceId };
  },
});

/** Bills a customer for what was done until a day and waits for it, on one invoice. */
export const billCustomerByHand = defineOperation({
  name: "bill-customer",
  access: "money.change",
  about: { customerId: "customer" },
  input: input({ customerId: Id, until: DateText }),
  run: (context, { customerId, until }) => ({
    invoiceId: billCustomer(context, customerId, { work: until, flat: until }),
  }),
});

/** Bills a customer by itself: their month when it is over, and flat prices when their month or year begins. */
export const billByItself = defineOperation({
  name: "bill-by-itself",
  access: "system",
  input: input({ customerId: Id }),
  run(context, { customerId }) {
    const { today } = context;
    const isByMonth = billingOf(context, customerId) === "month";
    const work = isByMonth ? lastOfMonthBefore(today) : never;
    return { invoiceId: billCustomer(context, customerId, { work, flat: today }) };
  },
});

/** Before any day that there is. */
const never = "0000-01-01";
