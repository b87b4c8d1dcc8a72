import { type Role, roles } from "@/core/people/permissions";
import { OneOf, input } from "@/kernel/inputs";
import { actorWords, defineOperation } from "@/kernel/operation";
import { logSecurity } from "@/kernel/security-log";
import { rolesColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";
import { mustNotExceed } from "../rights";
import { saveSettings } from "@/kernel/settings";

const SaveSecurity = input({
  /** Holds and unproved bookings of one browser, email or phone. */
  unprovedEach: Type.Integer({ minimum: 1, maximum: 10_000 }),
  /** Bookings that one customer may make online, ahead or within a day. */
  provedEach: Type.Integer({ minimum: 1, maximum: 10_000 }),
  /** Percent of a day's work that unproved people together may keep. */
  unprovedPercent: Type.Integer({ minimum: 1, maximum: 100 }),
  /** Bookings a day that pay nothing, from people nobody knows, before a code is asked. */
  unprovedADay: Type.Integer({ minimum: 0, maximum: 10_000 }),
  /** Roles that must have a second factor. */
  secondFactorRoles: Type.Array(OneOf(["owner", "dispatcher", "bookkeeper", "technician"]), {
    maxItems: 4,
    uniqueItems: true,
  }),
});

/** What strangers may keep before they show who they are, and which roles need a second factor. */
export const saveSecurity = defineOperation({
  name: "save-security",
  access: "people.change",
  input: SaveSecurity,
  run(context, { unprovedEach, provedEach, unprovedPercent, unprovedADay, secondFactorRoles }) {
    const { now, hogar, actor, business } = context;
    // What a role must have is changed by whoever may do all that it may.
    const before = rolesColumn.read(business.second_factor_roles);
    for (const role of Object.keys(roles) as Role[])
      if (before.includes(role) !== secondFactorRoles.includes(role))
        mustNotExceed(context, null, roles[role].permissions);
    saveSettings(context, {
      unproved_each: unprovedEach,
      proved_each: provedEach,
      unproved_percent: unprovedPercent,
      unproved_a_day: unprovedADay,
      second_factor_roles: JSON.stringify(secondFactorRoles),
    });
    logSecurity(hogar.store, now, {
      kind: "rights changed",
      who: actorWords(actor),
      words: secondFactorRoles.length
        ? `second factor for ${secondFactorRoles.join(", ")}`
        : "no role needs a second factor",
    });
  },
});
