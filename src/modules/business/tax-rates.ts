import type { OperationContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";

/** The rate that a business begins with, basis points, where it has none yet. */
export function addFirstTaxRate({ sql }: OperationContext, rateBp: number): void {
  if (!sql("SELECT 1 FROM tax_rates").get())
    insertRow(sql, "tax_rates", { name: "Standard", rate_bp: rateBp, position: 0 });
}
