import type { Actor } from "@/core/people/permissions";
import { Refusal } from "@/core/problems";
import type { Hogar } from "@/kernel/hogar";
import { Id, input } from "@/kernel/inputs";
import { defineOperation, mustPerform } from "@/kernel/operation";
import { logSecurity } from "@/kernel/security-log";
import { forgetTries, takeTry } from "@/kernel/tries";
import { rolesColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";
import { hash } from "@node-rs/argon2";
import { Type } from "@sinclair/typebox";
import { dropFactor, keepFactor } from "./factors";
import { isPassword } from "./password-check";
import { mustBeGood } from "./passwords";
import { stepOf } from "./second-factor";
import { sessionName } from "./sessions";

/**
 * What somebody changes about their own way in. Each takes the password once more, so that a desk left open gives nothing
 * away. Passwords are checked outside of the transaction: that takes its time on purpose.
 */
type Person = Extract<Actor, { kind: "person" }>;
const system: Actor = { kind: "system", name: "own account" };

const setPassword = defineOperation({
  name: "set-own-password",
  access: "system",
  input: input({ personId: Id, hash: Type.String() }),
  run: ({ sql }, { personId, hash }) =>
    void sql("UPDATE people SET password_hash = ? WHERE id = ?").run(hash, personId),
});

async function mustBe(hogar: Hogar, actor: Person, password: string, field: string): Promise<Rows["people"]> {
  const person = hogar.store.sql<Rows["people"]>("SELECT * FROM people WHERE id = ?").get(actor.id)!;
  const tries = `own password of ${actor.id}`;
  if (!takeTry(hogar, tries, ownPassword)) throw new Refusal("too-many-tries");
  if (!(await isPassword(person.password_hash, password)))
    throw new Refusal("invalid-input", { fields: { [field]: "This is not your password." } });
  forgetTries(hogar, tries);
  return person;
}

/** Tries at one's own password from within: whoever sits down at a desk left open guesses no further. */
const ownPassword = { most: 8, duringMs: 15 * 60_000 };

/** Gives oneself a new password, with the one of before; one's other sessions end. */
export async function changeOwnPassword(
  hogar: Hogar,
  actor: Person,
  { old, password }: { old: string; password: string },
): Promise<void> {
  const person = await mustBe(hogar, actor, old, "/old");
  mustBeGood(password, [person.name, person.mail]);
  mustPerform(hogar, setPassword, { personId: actor.id, hash: await hash(password) }, system);
  logSecurity(hogar.store, hogar.now(), { kind: "password changed", who: actor.name, words: "by themselves" });
}

/** Takes an authenticator app as second factor, shown to work by a code of it. Answers the recovery codes. */
export async function addOwnFactor(
  hogar: Hogar,
  actor: Person,
  { password, secret, code }: { password: string; secret: string; code: string },
): Promise<string[]> {
  await mustBe(hogar, actor, password, "/password");
  if (stepOf(secret, code, Date.now()) === null)
    throw new Refusal("invalid-input", { fields: { "/code": "This code is not right. Wait for the next one." } });
  const codes = keepFactor(hogar, actor.id, secret);
  logSecurity(hogar.store, hogar.now(), { kind: "second factor", who: actor.name, words: "set up" });
  return codes;
}

/** Goes without a second factor again, where the role lets one. */
export async function removeOwnFactor(hogar: Hogar, actor: Person, { password }: { password: string }): Promise<void> {
  await mustBe(hogar, actor, password, "/password");
  const { roles } = hogar.store.sql<{ roles: string }>("SELECT second_factor_roles AS roles FROM business").get()!;
  if (rolesColumn.read(roles).includes(actor.role))
    throw new Refusal("not-allowed", {
      sentence: "Your role must have a second factor. Ask the owner of the business.",
    });
  dropFactor(hogar, actor.id);
  logSecurity(hogar.store, hogar.now(), { kind: "second factor", who: actor.name, words: "taken away" });
}

const endOtherSessions = defineOperation({
  name: "end-other-sessions",
  access: "system",
  input: input({ ids: Type.Array(Type.String()) }),
  run({ sql }, { ids }) {
    for (const id of ids) sql("UPDATE sessions SET ended_at = ? WHERE id = ?").run(Date.now(), id);
    return ids.length;
  },
});

/** Ends all of somebody's sessions but the one they are using. Answers how many. */
export function endOthers(hogar: Hogar, actor: Person): number {
  const ids = hogar.store
    .sql<{ id: string }>("SELECT id FROM sessions WHERE person_id = ? AND ended_at IS NULL")
    .all(actor.id)
    .map(({ id }) => id)
    .filter((id) => sessionName(hogar, id) !== actor.session);
  return mustPerform(hogar, endOtherSessions, { ids }, system);
}
