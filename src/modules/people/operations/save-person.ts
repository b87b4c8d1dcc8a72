import { allPermissions, type Permission, permissionsOf, type Role, roles } from "@/core/people/permissions";
import { Refusal } from "@/core/problems";
import { Id, input, Mail, Name, OneOf, OrNull } from "@/kernel/inputs";
import { actorWords, defineOperation, type OperationContext } from "@/kernel/operation";
import { logSecurity } from "@/kernel/security-log";
import { permissionsColumn } from "@/store/columns";
import { insertRow } from "@/store/insert";
import { hashSync } from "@node-rs/argon2";
import { type Static, Type } from "@sinclair/typebox";
import { mustBeGood } from "../passwords";
import { mustNotExceed } from "../rights";

const Permissions = Type.Array(OneOf(allPermissions), { maxItems: 40, uniqueItems: true });
const SavePerson = input({
  id: OrNull(Id),
  name: Name,
  mail: Mail,
  role: OneOf(["owner", "dispatcher", "bookkeeper", "technician"]),
  /** Left out: the password stays. */
  password: Type.Optional(Type.String({ minLength: 10, maxLength: 200 })),
  technicianId: OrNull(Id),
  active: Type.Boolean(),
  given: Type.Optional(Permissions),
  taken: Type.Optional(Permissions),
});

/** The rights that somebody has when they are saved: what is not said stays. */
function rightsAsked({ sql }: OperationContext, person: Static<typeof SavePerson>): Permission[] {
  const before =
    person.id === null
      ? undefined
      : sql<{ given: string; taken: string }>("SELECT given, taken FROM people WHERE id = ?").get(person.id);
  return permissionsOf(
    person.role,
    person.given ?? (before ? permissionsColumn.read(before.given) : []),
    person.taken ?? (before ? permissionsColumn.read(before.taken) : []),
  );
}

/** Adds or changes somebody who signs in. A new password, another role or leaving ends the sessions of before. */
export const savePerson = defineOperation({
  name: "save-person",
  access: "people.change",
  input: SavePerson,
  run(context, person) {
    const { sql, now } = context;
    if (person.id === null && !person.password)
      throw new Refusal("invalid-input", {
        fields: { "/password": "Give a first password of at least 10 characters." },
      });
    if (person.password) mustBeGood(person.password, [person.name, person.mail]);
    mustNotExceed(context, person.id, rightsAsked(context, person));
    if (person.role === "technician" && person.technicianId === null)
      throw new Refusal("invalid-input", { fields: { "/technicianId": "Choose whose day this person sees." } });
    if (sql("SELECT 1 FROM people WHERE mail = ? AND id IS NOT ?").get(person.mail, person.id))
      throw new Refusal("name-taken", { fields: { "/mail": "Somebody signs in with this email already." } });
    const technician = person.technicianId;
    if (
      technician !== null &&
      sql("SELECT 1 FROM people WHERE technician_id = ? AND id IS NOT ?").get(technician, person.id)
    )
      throw new Refusal("name-taken", { fields: { "/technicianId": "Somebody else signs in for this technician." } });
    if (person.id === null) {
      return {
        id: insertRow(sql, "people", {
          name: person.name,
          mail: person.mail,
          password_hash: hashSync(person.password!),
          role: person.role,
          technician_id: technician,
          active: person.active ? 1 : 0,
          given: JSON.stringify(person.given ?? []),
          taken: JSON.stringify(person.taken ?? []),
        }),
      };
    }
    const before = sql<{ role: Role; active: number; given: string; taken: string }>(
      "SELECT role, active, given, taken FROM people WHERE id = ?",
    ).get(person.id);
    if (!before) throw new Refusal("not-found");
    const given = person.given ? JSON.stringify(person.given) : before.given;
    const taken = person.taken ? JSON.stringify(person.taken) : before.taken;
    sql(
      "UPDATE people SET name = ?, mail = ?, role = ?, technician_id = ?, active = ?, given = ?, taken = ? WHERE id = ?",
    ).run(person.name, person.mail, person.role, technician, person.active ? 1 : 0, given, taken, person.id);
    if (person.password)
      sql("UPDATE people SET password_hash = ? WHERE id = ?").run(hashSync(person.password), person.id);
    // Somebody must still be able to give permissions back.
    if (!sql("SELECT 1 FROM people WHERE role = 'owner' AND active = 1 AND taken = '[]'").get())
      throw new Refusal("last-owner");
    if (
      before.role !== person.role ||
      before.given !== given ||
      before.taken !== taken ||
      before.active !== Number(person.active)
    )
      logSecurity(context.hogar.store, now, {
        kind: "rights changed",
        who: person.name,
        words: `by ${actorWords(context.actor)}: ${roles[person.role].name}${person.active ? "" : ", may not sign in"}`,
      });
    if (person.password)
      logSecurity(context.hogar.store, now, {
        kind: "password changed",
        who: person.name,
        words: `by ${actorWords(context.actor)}`,
      });
    if (person.password || before.role !== person.role || !person.active)
      sql("UPDATE sessions SET ended_at = ? WHERE person_id = ? AND ended_at IS NULL").run(now, person.id);
    return { id: person.id };
  },
});
