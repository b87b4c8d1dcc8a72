import type { SecurityNote } from "@/core/problems";
import type { Store } from "@/store/database";
import { insertRow } from "@/store/insert";

/** Takes down something that has to do with the lock, with the network address where it is known. It stands beside the audit: a refusal leaves nothing there. */
export const logSecurity = (
  { sql }: Pick<Store, "sql">,
  at: number,
  { kind, who, words, address = "" }: SecurityNote & { address?: string },
): void => void insertRow(sql, "security_events", { at, kind, who, words, address });
