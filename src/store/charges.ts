import { paymentStates } from "@/core/money/states";

/** In SQL: whether a charge is under way that pays an invoice `i`, alone or with others. */
export const chargeUnderWay = `EXISTS (SELECT 1 FROM payments p WHERE p.state IN ${paymentStates.sql("under way")}
  AND (p.invoice_id = i.id OR (p.purpose = 'invoice' AND p.job_id = i.job_id)
    OR EXISTS (SELECT 1 FROM json_each(p.pays) e WHERE json_extract(e.value, '$.invoiceId') = i.id)))`;
