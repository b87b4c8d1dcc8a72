import { beyond, type Permission, permissionsOf, permissionWords, type Role } from "@/core/people/permissions";
import { Refusal } from "@/core/problems";
import type { OperationContext } from "@/kernel/operation";
import { permissionsColumn } from "@/store/columns";

/** Nobody gives rights that they do not have, and whoever has fewer changes nothing of whoever has more. `gets` are the rights that somebody is to have, `personId` who has some already. */
export function mustNotExceed(
  { sql, actor }: OperationContext,
  personId: number | null,
  gets: readonly Permission[] = [],
): void {
  const had =
    personId === null
      ? undefined
      : sql<{ role: Role; given: string; taken: string }>("SELECT role, given, taken FROM people WHERE id = ?").get(
          personId,
        );
  const has = had ? permissionsOf(had.role, permissionsColumn.read(had.given), permissionsColumn.read(had.taken)) : [];
  const [tooMuch] = beyond(actor, [...has, ...gets]);
  if (tooMuch)
    throw new Refusal("not-allowed", {
      sentence: `You cannot give or change what you may not do yourself: ${permissionWords[tooMuch].toLowerCase()}.`,
    });
}
