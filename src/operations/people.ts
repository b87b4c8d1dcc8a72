import { hashSync, verify } from "@node-rs/argon2";
import { nanoid } from "nanoid";
import { Type } from "@sinclair/typebox";
import { may, personActor, type Access, type Actor, type Permission, type Role } from "@/core/people/permissions";
import { Refusal, type Result } from "@/core/problems";
import { Id, input } from "@/schemas/common";
import { HandIncoming, SavePerson } from "@/schemas/setup";
import { defineOperation, perform, type ViewContext } from "./door";
import type { Hogar } from "./hogar";

const sessionDays = 14;

/** Adds or changes somebody who signs in. A new password, another role or leaving ends the sessions of before. */
export const savePerson = defineOperation({
  name: "save-person",
  access: "people.change",
  input: SavePerson,
  run({ sql, now }, person) {
    if (person.id === null && !person.password)
      throw new Refusal("invalid-input", {
        fields: { "/password": "Give a first password of at least 10 characters." },
      });
    if (person.role === "technician" && person.technicianId === null)
      throw new Refusal("invalid-input", { fields: { "/technicianId": "Choose whose day this person sees." } });
    if (sql("SELECT 1 FROM people WHERE mail = ? AND id IS NOT ?").get(person.mail, person.id))
      throw new Refusal("name-taken", { fields: { "/mail": "Somebody signs in with this mail already." } });
    const technician = person.technicianId;
    if (
      technician !== null &&
      sql("SELECT 1 FROM people WHERE technician_id = ? AND id IS NOT ?").get(technician, person.id)
    )
      throw new Refusal("name-taken", { fields: { "/technicianId": "Somebody else signs in for this technician." } });
    if (person.id === null) {
      return sql<{ id: number }>(
        "INSERT INTO people (name, mail, password_hash, role, technician_id, active, given, taken) VALUES (?, ?, ?, ?, ?, ?, ?, ?) RETURNING id",
      ).get(
        person.name,
        person.mail,
        hashSync(person.password!),
        person.role,
        technician,
        person.active ? 1 : 0,
        JSON.stringify(person.given ?? []),
        JSON.stringify(person.taken ?? []),
      )!;
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
    if (person.password || before.role !== person.role || !person.active)
      sql("UPDATE sessions SET ended_at = ? WHERE person_id = ? AND ended_at IS NULL").run(now, person.id);
    return { id: person.id };
  },
});

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
          given: JSON.parse(p.given) as Permission[],
          taken: JSON.parse(p.taken) as Permission[],
        }),
        access,
      ),
    )
    .map(({ id, name }) => ({ id, name }));

/** Refuses where somebody could not deal with what comes in; nobody is fine. */
export function mustHandle(context: Pick<ViewContext, "sql">, personId: number | null): void {
  if (personId !== null && !peopleWhoMay(context, "shared.change").some((p) => p.id === personId))
    throw new Refusal("invalid-input", {
      fields: { "/personId": "This person may not book and move everybody’s visits. Give that permission first." },
    });
}

/** Who handles incoming from now on: whoever may say who does what hands it over, or whoever has it. */
export const handIncoming = defineOperation({
  name: "hand-incoming",
  access: "office.see",
  input: HandIncoming,
  run(context, { personId }) {
    const { sql, business, actor } = context;
    const has = actor.kind === "person" && business.incoming_person_id === actor.id;
    if (!has && !may(actor, "people.change")) throw new Refusal("not-allowed");
    mustHandle(context, personId);
    sql("UPDATE business SET incoming_person_id = ?").run(personId);
  },
});

/** Ends every session of a person, on all their devices. */
export const endSessions = defineOperation({
  name: "end-sessions",
  access: "people.change",
  input: input({ personId: Id }),
  run: ({ sql, now }, { personId }) => ({
    ended: sql("UPDATE sessions SET ended_at = ? WHERE person_id = ? AND ended_at IS NULL").run(now, personId).changes,
  }),
});

const startSession = defineOperation({
  name: "start-session",
  access: "system",
  input: input({ personId: Id }),
  run({ sql }, { personId }) {
    const id = nanoid(40);
    // Sessions live by the real clock: moving the demo's clock signs nobody out.
    sql("INSERT INTO sessions (id, person_id, started_at, expires_at) VALUES (?, ?, ?, ?)").run(
      id,
      personId,
      Date.now(),
      Date.now() + sessionDays * 86_400_000,
    );
    return { sessionId: id };
  },
});

const endSession = defineOperation({
  name: "end-session",
  access: "system",
  input: input({ sessionId: Type.String() }),
  run: ({ sql }, { sessionId }) => void sql("UPDATE sessions SET ended_at = ? WHERE id = ?").run(Date.now(), sessionId),
});

// Compared against where the mail is unknown, so that the time taken does not tell whether it is.
const nobodysHash = hashSync("nobody has this password");
const system: Actor = { kind: "system", name: "sign-in" };

/** Checks mail and password and starts a session. */
export async function signIn(
  hogar: Hogar,
  mail: string,
  password: string,
): Promise<Result<{ sessionId: string; home: string }>> {
  const person = hogar.store
    .sql<{ id: number; password_hash: string; role: Role }>(
      "SELECT id, password_hash, role FROM people WHERE mail = ? AND active = 1",
    )
    .get(mail.trim());
  const right = await verify(person?.password_hash ?? nobodysHash, password);
  if (!person || !right) return { ok: false, problem: new Refusal("wrong-password").problem };
  const result = perform(hogar, startSession, { personId: person.id }, system);
  if (!result.ok) return result;
  const { sessionId } = result.value;
  return { ok: true, value: { sessionId, home: homeOf(actorOfSession(hogar, sessionId)!) } };
}

/** Where somebody begins: in the office, or in the field. */
export const homeOf = (actor: Actor): string => (may(actor, "office.see") ? "/today" : "/field");

export const signOut = (hogar: Hogar, sessionId: string): void =>
  void perform(hogar, endSession, { sessionId }, system);

/** Who a session stands for, or null where it has ended. */
export function actorOfSession(hogar: Hogar, sessionId: string): Extract<Actor, { kind: "person" }> | null {
  const person = hogar.store
    .sql<{ id: number; name: string; role: Role; technician_id: number | null; given: string; taken: string }>(
      `SELECT p.id, p.name, p.role, p.technician_id, p.given, p.taken FROM sessions s JOIN people p ON p.id = s.person_id
     WHERE s.id = ? AND s.ended_at IS NULL AND s.expires_at > ? AND p.active = 1`,
    )
    .get(sessionId, Date.now());
  return person
    ? personActor({
        id: person.id,
        name: person.name,
        role: person.role,
        technicianId: person.technician_id,
        given: JSON.parse(person.given) as Permission[],
        taken: JSON.parse(person.taken) as Permission[],
      })
    : null;
}
