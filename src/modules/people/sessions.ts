import { dayMs, signedInDays } from "@/core/horizons";
import { type Actor, may, type Permission, personActor, type Role } from "@/core/people/permissions";
import { Refusal, type Result } from "@/core/problems";
import type { Hogar } from "@/kernel/hogar";
import { Id, input } from "@/kernel/inputs";
import { hashed } from "@/kernel/keys";
import { defineOperation, mustPerform, perform } from "@/kernel/operation";
import { logSecurity } from "@/kernel/security-log";
import { forgetTries, takeTry } from "@/kernel/tries";
import { permissionsColumn, rolesColumn } from "@/store/columns";
import { insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { hashSync } from "@node-rs/argon2";
import { Type } from "@sinclair/typebox";
import { nanoid } from "nanoid";
import { secondFactorOf, takeFactor } from "./factors";
import { isPassword } from "./password-check";

/** Where somebody signs in from, in words for their own list of sessions. */
export interface SignedInFrom {
  browser: string;
  address: string;
}

const startSession = defineOperation({
  name: "start-session",
  access: "system",
  input: input({ personId: Id, browser: Type.String(), address: Type.String() }),
  run({ sql }, { personId, browser, address }) {
    const id = nanoid(40);
    // Sessions live by the real clock: moving the demo's clock signs nobody out.
    insertRow(sql, "sessions", {
      id,
      person_id: personId,
      started_at: Date.now(),
      expires_at: Date.now() + signedInDays * dayMs,
      browser,
      address,
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

/** Codes of the second factor that may be tried with one password, in an hour. */
const secondFactor = { most: 5, duringMs: 3_600_000 };

/** The id of whoever signs in with a mail, or null. */
export const personOfMail = ({ store }: Hogar, mail: string): number | null =>
  store.sql<{ id: number }>("SELECT id FROM people WHERE mail = ? AND active = 1").get(mail.trim())?.id ?? null;

/** Checks mail, password and, where there is one, the second factor, and starts a session. */
export async function signIn(
  hogar: Hogar,
  { mail, password, code = "" }: { mail: string; password: string; code?: string },
  from: SignedInFrom = { browser: "", address: "" },
): Promise<Result<{ sessionId: string; home: string; personId: number }>> {
  const { store } = hogar;
  const person = store.sql<Rows["people"]>("SELECT * FROM people WHERE mail = ? AND active = 1").get(mail.trim());
  const right = await isPassword(person?.password_hash ?? nobodysHash, password);
  const refuse = (code: "wrong-password" | "wrong-code" | "too-many-codes", words: string) => {
    logSecurity(store, hogar.now(), {
      kind: code === "wrong-password" ? "sign-in refused" : "code wrong",
      who: mail.trim(),
      words,
      address: from.address,
    });
    return { ok: false, problem: new Refusal(code).problem } as const;
  };
  if (!person || !right) return refuse("wrong-password", "Email and password did not match");
  if (secondFactorOf(hogar, person)) {
    if (code === "") return { ok: false, problem: new Refusal("second-factor").problem };
    // For one password there are few codes, however they are tried; a new password has new ones.
    const tries = `second factor of ${person.id} with ${person.password_hash}`;
    if (!takeTry(hogar, tries, secondFactor)) return refuse("too-many-codes", "Too many codes for one password");
    if (!takeFactor(hogar, person.id, code)) return refuse("wrong-code", "The second factor was wrong");
    forgetTries(hogar, tries);
  }
  const result = perform(hogar, startSession, { personId: person.id, ...from }, system);
  if (!result.ok) return result;
  logSecurity(store, hogar.now(), { kind: "signed in", who: person.name, words: from.browser, address: from.address });
  const { sessionId } = result.value;
  return { ok: true, value: { sessionId, personId: person.id, home: homeOf(actorOfSession(hogar, sessionId)!) } };
}

/** Where somebody begins: in the office, in the field, or where the second factor is set up. */
export function homeOf(actor: Actor): string {
  if (actor.kind === "person" && actor.mustEnrol) return "/account";
  return may(actor, "office.see") ? "/today" : may(actor, "field.work") ? "/field" : "/account";
}

export const signOut = (hogar: Hogar, sessionId: string): void =>
  void mustPerform(hogar, endSession, { sessionId }, system);

/** A session as its person sees it named: the id itself would open it. */
export const sessionName = ({ keys }: Hogar, sessionId: string): string =>
  hashed(keys, "sessions", sessionId).slice(0, 16);

/** Who a session stands for, or null where it has ended. */
export function actorOfSession(hogar: Hogar, sessionId: string): Extract<Actor, { kind: "person" }> | null {
  const person = hogar.store
    .sql<{
      id: number;
      name: string;
      role: Role;
      technician_id: number | null;
      given: string;
      taken: string;
      totp_sealed: string | null;
      second_factor_roles: string;
    }>(
      `SELECT p.id, p.name, p.role, p.technician_id, p.given, p.taken, p.totp_sealed, b.second_factor_roles
        FROM sessions s JOIN people p ON p.id = s.person_id JOIN business b
        WHERE s.id = ? AND s.ended_at IS NULL AND s.expires_at > ? AND p.active = 1`,
    )
    .get(sessionId, Date.now());
  if (!person) return null;
  const permissions = (text: string): Permission[] => permissionsColumn.read(text);
  return personActor({
    id: person.id,
    name: person.name,
    role: person.role,
    technicianId: person.technician_id,
    given: permissions(person.given),
    taken: permissions(person.taken),
    mustEnrol: person.totp_sealed === null && rolesColumn.read(person.second_factor_roles).includes(person.role),
    session: sessionName(hogar, sessionId),
  });
}
