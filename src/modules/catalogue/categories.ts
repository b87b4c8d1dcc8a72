import type { OperationContext } from "@/kernel/operation";
import type { Rows } from "@/store/rows";

/** Which kind of work a category is, as directories call it. */
export const setCategoryKind = ({ sql }: OperationContext, name: string, kind: Rows["categories"]["kind"]): void =>
  void sql("UPDATE categories SET kind = ? WHERE name = ?").run(kind, name);
