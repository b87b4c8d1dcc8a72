import { personActor } from "@/core/people/permissions";
import type { Hogar } from "@/kernel/hogar";
import { mustPerform, viewContext } from "@/kernel/operation";
import { saveCustomer } from "@/modules/customers/operations/save-customer";
import { takePayment } from "@/modules/money/operations/cash";
import { makeInvoice } from "@/modules/money/operations/billing";
import type { Rows } from "@/store/rows";
import { addDays } from "@/core/time/dates";
import { customerInput } from "./customer-input";
import { office } from "./set-up";

/** Some of those to whom we come in the next days are billed by the month, others when somebody makes the invoice. */
export function billSomeLater(hogar: Hogar): void {
  const { today } = viewContext(hogar, office);
  const customers = hogar.store
    .sql<Rows["customers"]>(
      `SELECT c.* FROM customers c WHERE merged_into IS NULL AND EXISTS (
          SELECT 1 FROM visits v JOIN jobs j ON j.id = v.job_id
          WHERE j.customer_id = c.id AND v.state = 'promised' AND v.date BETWEEN ? AND ?
        ) ORDER BY id LIMIT 24`,
    )
    .all(today, addDays(today, 2));
  for (const [i, customer] of customers.entries())
    mustPerform(
      hogar,
      saveCustomer,
      {
        ...customerInput(customer),
        paymentDays: 10,
        billing: {
          by: i % 2 ? "hand" : "month",
          paymentFrom: i % 2 ? "invoice" : "end of month",
          taxKind: "standard",
          taxNumber: "",
        },
      },
      office,
    );
}

/** Two technicians were paid at the door and have not been at the office since; and an invoice that no job is behind. */
export function takeAtTheDoor(hogar: Hogar): void {
  const done = hogar.store
    .sql<{ visitId: number; technicianId: number; name: string; due: number }>(
      `SELECT v.id AS visitId, t.id AS technicianId, t.name, b.due_minor AS due
        FROM visits v JOIN placements p ON p.visit_id = v.id JOIN technicians t ON t.id = p.technician_id
          JOIN job_balances b ON b.job_id = v.job_id JOIN invoices i ON i.job_id = v.job_id
        WHERE v.state = 'done' AND b.due_minor > 0
          AND NOT EXISTS (SELECT 1 FROM payments WHERE job_id = v.job_id AND state IN ('asked', 'second step'))
        ORDER BY v.date DESC, v.id DESC LIMIT 60`,
    )
    .all();
  const people = [...new Set(done.map(({ technicianId }) => technicianId))].slice(0, 2);
  for (const [i, technicianId] of people.entries())
    for (const [n, visit] of done
      .filter((one) => one.technicianId === technicianId)
      .slice(0, 2 - i)
      .entries())
      mustPerform(
        hogar,
        takePayment,
        {
          visitId: visit.visitId,
          method: n === 0 ? "cash" : "cheque",
          amountMinor: visit.due,
          note: n === 0 ? "" : "000417",
          key: `demo at the door ${visit.visitId}`,
        },
        personActor({ id: 1, name: visit.name, role: "owner", technicianId }),
      );
  const { id } = hogar.store
    .sql<{ id: number }>("SELECT min(id) AS id FROM customers WHERE merged_into IS NULL")
    .get()!;
  mustPerform(
    hogar,
    makeInvoice,
    {
      customerId: id,
      lines: [
        { description: "Stove rope, 10 mm", quantity: 4, unitMinor: 650, taxBp: 2_100, discountBp: 0 },
        { description: "Fire cement, tub", quantity: 1, unitMinor: 1_290, taxBp: 2_100, discountBp: 1_000 },
      ],
      discountBp: 0,
      before: "Collected at our place.",
      after: "",
      dueDate: null,
      key: "demo by hand",
    },
    office,
  );
}
