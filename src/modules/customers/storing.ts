import type { Consent } from "@/core/messages/consents";
import { phoneKept, phoneProblem } from "@/core/people/phones";
import { Refusal } from "@/core/problems";
import { tidy } from "@/core/words";
import type { OperationContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import type { ContactPerson } from "@/core/people/contact-persons";
import { contactsColumn } from "@/store/columns";
import { recordConsent } from "@/modules/customers/consents";
import type { SaveCustomer } from "./inputs";
import { rightsOn } from "@/kernel/seen";

/** Writes a customer as somebody of the office knows them. Answers their id. */
export function storeCustomer(context: OperationContext, { id, ...customer }: Omit<SaveCustomer, "site">): number {
  const { sql, business, now, actor } = context;
  const wrong = customer.phone && phoneProblem(customer.phone, business.phone);
  if (wrong) throw new Refusal("invalid-input", { fields: { "/phone": wrong } });
  const { contacts, notes } = rightsOn(actor);
  const { bill, billing } = customer;
  if (billing?.taxKind === "reverse charge" && !billing.taxNumber.trim())
    throw new Refusal("invalid-input", {
      fields: { "/billing/taxNumber": "Reverse charge needs the customer’s tax number: it stands on their invoices." },
    });
  // Whoever does not see contacts and notes for inside does not write over them either.
  const row = {
    name: tidy(customer.name),
    reached_by: customer.reachedBy,
    source: customer.source.trim(),
    payment_days: customer.paymentDays,
    ...(billing && {
      billing: billing.by,
      payment_from: billing.paymentFrom,
      tax_kind: billing.taxKind,
      tax_number: billing.taxNumber.trim(),
    }),
    technician_note: customer.technicianNote.trim(),
    ...(notes && { inside_note: customer.insideNote.trim() }),
    ...(contacts && customer.contacts && { contacts: contactsColumn.write(others(context, customer.contacts)) }),
    ...(contacts && {
      bill_name: bill ? tidy(bill.name) : "",
      bill_mail: bill?.mail.trim() ?? "",
      bill_address: bill?.address.trim() ?? "",
    }),
  };
  const reached = { mail: customer.mail.trim(), phone: customer.phone && phoneKept(customer.phone, business.phone) };
  const known = id === null ? null : changeCustomer(context, id, { ...row, ...(contacts && reached) });
  const customerId =
    known ??
    insertRow(sql, "customers", {
      ...row,
      ...reached,
      reminders: 0,
      offers: 0,
      since_at: now,
      collect_never: context.business.collect_new ? 0 : 1,
    });
  saveTags(context, customerId, customer.tags);
  for (const kind of ["reminders", "offers"] as const) noteConsent(context, customerId, kind, customer[kind]);
  return customerId;
}

/** Others who are reached for a customer, tidied. */
const others = ({ business }: OperationContext, contacts: NonNullable<SaveCustomer["contacts"]>): ContactPerson[] =>
  contacts.map(({ name, role, mail, phone, uses }, i) => {
    const wrong = phone && phoneProblem(phone, business.phone);
    if (wrong) throw new Refusal("invalid-input", { fields: { [`/contacts/${i}/phone`]: wrong } });
    if (uses.some((use) => use !== "access") && !mail.trim() && !phone)
      throw new Refusal("invalid-input", {
        fields: { [`/contacts/${i}/mail`]: "Write an email or a phone: messages go there." },
      });
    return {
      name: tidy(name),
      role: tidy(role),
      mail: mail.trim(),
      phone: phone && phoneKept(phone, business.phone),
      uses: [...new Set(uses)],
    };
  });

function changeCustomer({ sql }: OperationContext, id: number, row: Record<string, string | number | null>): number {
  const set = Object.keys(row).map((column) => `${column} = @${column}`);
  const { changes } = sql(
    `UPDATE customers SET ${set.join(", ")} WHERE id = @id AND merged_into IS NULL AND erased_at IS NULL`,
  ).run({ ...row, id });
  if (changes === 0) throw new Refusal("not-found");
  return id;
}

/** What the office was told counts as said, where it differs from what was known. */
function noteConsent(
  context: OperationContext,
  customerId: number,
  kind: Exclude<Consent, "card on file">,
  given: boolean,
): void {
  const now = context.sql<{ given: number }>(`SELECT ${kind} AS given FROM customers WHERE id = ?`).get(customerId)!;
  if ((now.given === 1) !== given) recordConsent(context, customerId, kind, given, true);
}

function saveTags({ sql }: OperationContext, customerId: number, tags: readonly string[]): void {
  const kept = [...new Map(tags.map((tag) => [tidy(tag).toLowerCase(), tidy(tag)])).values()];
  sql("DELETE FROM customer_tags WHERE customer_id = ? AND tag NOT IN (SELECT value FROM json_each(?))").run(
    customerId,
    JSON.stringify(kept),
  );
  for (const tag of kept) addTag({ sql }, customerId, tag);
}

export const addTag = ({ sql }: Pick<OperationContext, "sql">, customerId: number, tag: string): number | null =>
  sql<{ id: number }>(
    "INSERT INTO customer_tags (customer_id, tag) VALUES (?, ?) ON CONFLICT DO NOTHING RETURNING id",
  ).get(customerId, tag)?.id ?? null;
