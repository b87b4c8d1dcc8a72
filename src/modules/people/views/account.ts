import { roles } from "@/core/people/permissions";
import { Refusal } from "@/core/problems";
import { Nothing } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";
import { rolesColumn, wordsColumn } from "@/store/columns";
import { newTotpSecret, totpAddress } from "../second-factor";
import { sessionName } from "../sessions";

/** Somebody's own way in: who they are here, their second factor, and where they are signed in. */
export const account = defineView({
  name: "account",
  access: "person",
  input: Nothing,
  read({ sql, actor, hogar, business }) {
    if (actor.kind !== "person") throw new Refusal("not-signed-in");
    const person = sql<{ name: string; mail: string; totp_sealed: string | null; recovery_hashes: string }>(
      "SELECT name, mail, totp_sealed, recovery_hashes FROM people WHERE id = ?",
    ).get(actor.id)!;
    const offered = newTotpSecret();
    return {
      name: person.name,
      mail: person.mail,
      role: roles[actor.role].name,
      hasFactor: person.totp_sealed !== null,
      recoveryLeft: wordsColumn.read(person.recovery_hashes).length,
      mustHaveFactor: rolesColumn.read(business.second_factor_roles).includes(actor.role),
      /** A new secret for an authenticator app: nothing of it is kept until a code has shown that it works. */
      offered: { secret: offered, address: totpAddress(offered, business.name, person.mail) },
      sessions: sql<{ id: string; started_at: number; browser: string; address: string }>(
        `SELECT id, started_at, browser, address FROM sessions
          WHERE person_id = ? AND ended_at IS NULL AND expires_at > ? ORDER BY started_at DESC LIMIT 50`,
      )
        .all(actor.id, Date.now())
        .map(({ id, ...session }) => {
          const name = sessionName(hogar, id);
          return { ...session, name, isThis: name === actor.session };
        }),
      timeZone: business.time_zone,
    };
  },
});
