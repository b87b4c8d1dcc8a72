import { type Access, may, personActor, type Role } from "@/core/people/permissions";
import { Refusal } from "@/core/problems";
import type { ViewContext } from "@/kernel/operation";
import { permissionsColumn } from "@/store/columns";

/** Everybody who signs in and may do something. */
export const peopleWhoMay = ({ sql }: Pick<ViewContext, "sql">, access: Access): { id: number; name: string }[] =>
  sql<{ id: number; name: string; role: Role; given: string; taken: string }>(
    "SELECT id, name, role, given, taken FROM people WHERE active = 1 ORDER BY name",
  )
    .all()
    .filter((p) =>
      may(
        personActor({
          ...p,
          technicianId: null,
          given: permissionsColumn.read(p.given),
          taken: permissionsColumn.read(p.taken),
        }),
        access,
      ),
    )
    .map(({ id, name }) => ({ id, name }));

/** Refuses where somebody could not deal with what comes in; nobody is fine. */
export function mustHandle(context: Pick<ViewContext, "sql">, personId: number | null): void {
  if (personId !== null && !peopleWhoMay(context, "board.change of all").some((p) => p.id === personId))
    throw new Refusal("invalid-input", {
      fields: { "/personId": "This person may not book and move everybody’s visits. Give that permission first." },
    });
}
