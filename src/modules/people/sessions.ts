import { dayMs, signedInDays } from "@/core/horizons";
import { type Actor, may, personActor, type Role } from "@/core/people/permissions";
import { Refusal, type Result } from "@/core/problems";
import type { Hogar } from "@/kernel/hogar";
import { Id, input } from "@/kernel/inputs";
import { defineOperation, perform } from "@/kernel/operation";
import { permissionsColumn } from "@/store/columns";
import { insertRow } from "@/store/insert";
import { hashSync, verify } from "@node-rs/argon2";
import { Type } from "@sinclair/typebox";
import { nanoid } from "nanoid";

const startSession = defineOperation({
  name: "start-session",
  access: "system",
  input: input({ personId: Id }),
  run({ sql }, { personId }) {
    const id = nanoid(40);
    // Sessions live by the real clock: moving the demo's clock signs nobody out.
    insertRow(sql, "sessions", {
      id,
      person_id: personId,
      started_at: Date.now(),
      expires_at: Date.now() + signedInDays * dayMs,
    });
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
      `SELECT p.id, p.name, p.role, p.technician_id, p.given, p.taken
        FROM sessions s JOIN people p ON p.id = s.person_id
        WHERE s.id = ? AND s.ended_at IS NULL AND s.expires_at > ? AND p.active = 1`,
    )
    .get(sessionId, Date.now());
  return person
    ? personActor({
        id: person.id,
        name: person.name,
        role: person.role,
        technicianId: person.technician_id,
        given: permissionsColumn.read(person.given),
        taken: permissionsColumn.read(person.taken),
      })
    : null;
}
