import type { OperationContext, ViewContext } from "@/kernel/operation";
import type { RepeatRow } from "./terms";

/** The others that were agreed together with a repeat, for other sites of its customer, and go on. */
export const agreedTogether = (
  { sql }: ViewContext,
  { id, agreed_with_id }: Pick<RepeatRow, "id" | "agreed_with_id">,
): RepeatRow[] =>
  sql<RepeatRow>(
    "SELECT * FROM repeats WHERE @lead IN (id, agreed_with_id) AND id <> @id AND state = 'active' ORDER BY id",
  ).all({ lead: agreed_with_id ?? id, id });

/** Has a repeat laid out by the worker, in a transaction of its own. */
export const layOutSoon = ({ sql }: OperationContext, repeatId: number): void =>
  void sql("UPDATE repeats SET grow_on = NULL WHERE id = ?").run(repeatId);
