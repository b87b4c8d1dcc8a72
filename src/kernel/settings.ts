import type { BusinessRow } from "@/store/business";
import type { OperationContext } from "./operation";

/** How the business is set up from now on, column by column; what is not named stays. Each column is set by one module (scripts/owners.ts). */
export function saveSettings({ sql }: Pick<OperationContext, "sql">, settings: Partial<Omit<BusinessRow, "id">>): void {
  const given = Object.entries(settings).filter(([, value]) => value !== undefined);
  if (given.length === 0) return;
  sql(`UPDATE business SET ${given.map(([column]) => `${column} = @${column}`).join(", ")}`).run(
    Object.fromEntries(given),
  );
}
