import type { Actor } from "@/core/people/permissions";
import type { Hogar } from "@/kernel/hogar";
import { Id, input, OrNull } from "@/kernel/inputs";
import { hashed, isHashOf, sealed, unsealed } from "@/kernel/keys";
import { defineOperation, mustPerform } from "@/kernel/operation";
import { wordsColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";
import { customAlphabet } from "nanoid";
import { stepOf } from "./second-factor";

const system: Actor = { kind: "system", name: "second factor" };
const recoveryCodes = 8;

const setFactor = defineOperation({
  name: "set-second-factor",
  access: "system",
  input: input({ personId: Id, sealed: OrNull(Type.String()), recovery: Type.Array(Type.String()) }),
  run({ sql }, { personId, sealed, recovery }) {
    sql("UPDATE people SET totp_sealed = ?, totp_step = 0, recovery_hashes = ? WHERE id = ?").run(
      sealed,
      JSON.stringify(recovery),
      personId,
    );
  },
});

const useFactor = defineOperation({
  name: "use-second-factor",
  access: "system",
  input: input({ personId: Id, step: Type.Integer(), recovery: Type.Array(Type.String()) }),
  run: ({ sql }, { personId, step, recovery }) =>
    sql("UPDATE people SET totp_step = ?, recovery_hashes = ? WHERE id = ? AND totp_step < ?").run(
      step,
      JSON.stringify(recovery),
      personId,
      step,
    ).changes === 1,
});

/** The shared secret of somebody's authenticator app, or null where they have none. */
export const secondFactorOf = ({ keys }: Hogar, person: { totp_sealed: string | null }): string | null =>
  person.totp_sealed === null ? null : unsealed(keys, "second factors", person.totp_sealed);

/** Whether a code is right: of the app, of a step that was not used before, or one of the recovery codes, which is used up. */
export function takeFactor(hogar: Hogar, personId: number, code: string): boolean {
  const person = hogar.store
    .sql<{ totp_sealed: string | null; totp_step: number; recovery_hashes: string }>(
      "SELECT totp_sealed, totp_step, recovery_hashes FROM people WHERE id = ?",
    )
    .get(personId);
  const secret = person && secondFactorOf(hogar, person);
  if (!person || !secret) return false;
  const recovery = wordsColumn.read(person.recovery_hashes);
  // Codes of the app go by the real clock, as the app does.
  const step = stepOf(secret, code, Date.now());
  if (step !== null) return mustPerform(hogar, useFactor, { personId, step, recovery }, system);
  const typed = tidy(code);
  const left = recovery.filter((hash) => !isHashOf(hogar.keys, "second factors", typed, hash));
  if (left.length === recovery.length) return false;
  return mustPerform(hogar, useFactor, { personId, step: person.totp_step + 1, recovery: left }, system);
}

const tidy = (code: string): string => code.replace(/[^A-Za-z0-9]/g, "").toLowerCase();

/** Keeps a shared secret, and answers the recovery codes: they are shown once, and kept as hashes. */
export function keepFactor(hogar: Hogar, personId: number, secret: string): string[] {
  const codes = Array.from({ length: recoveryCodes }, newRecoveryCode);
  mustPerform(
    hogar,
    setFactor,
    {
      personId,
      sealed: sealed(hogar.keys, "second factors", secret),
      recovery: codes.map((code) => hashed(hogar.keys, "second factors", tidy(code))),
    },
    system,
  );
  return codes;
}

export const dropFactor = (hogar: Hogar, personId: number): void =>
  mustPerform(hogar, setFactor, { personId, sealed: null, recovery: [] }, system);

// Without letters that are taken for others.
const five = customAlphabet("abcdefghjkmnpqrstuvwxyz23456789", 5);
const newRecoveryCode = (): string => `${five()}-${five()}`;

/** Seals every shared secret with the newest key. Recovery codes are hashes, which only the key they were made with reads. */
export function sealFactorsAnew(hogar: Hogar): void {
  for (const person of hogar.store
    .sql<{ id: number; totp_sealed: string }>("SELECT id, totp_sealed FROM people WHERE totp_sealed IS NOT NULL")
    .all()) {
    const secret = secondFactorOf(hogar, person);
    if (secret)
      mustPerform(
        hogar,
        setFactor,
        { personId: person.id, sealed: sealed(hogar.keys, "second factors", secret), recovery: [] },
        system,
      );
  }
}
