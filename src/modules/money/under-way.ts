import type { ViewContext } from "@/kernel/operation";
import { chargeUnderWay } from "@/store/charges";

/** Whether a charge for one of these invoices is under way. */
export const isChargeUnderWay = ({ sql }: ViewContext, invoiceIds: readonly number[]): boolean =>
  sql(`SELECT 1 FROM invoices i WHERE i.id IN (SELECT value FROM json_each(?)) AND ${chargeUnderWay}`).get(
    JSON.stringify(invoiceIds),
  ) !== undefined;
