import { checkInput } from "@/kernel/check-input";
import type { Hogar } from "@/kernel/hogar";
import { input, Mail, Name, Phone, PointSchema } from "@/kernel/inputs";
import { insertRow } from "@/store/insert";
import { hashSync } from "@node-rs/argon2";
import { type Static, Type } from "@sinclair/typebox";
import { Currency } from "./inputs";

export const OpenBusiness = input({
  name: Name,
  phone: Phone,
  mail: Mail,
  currency: Currency,
  pricesIncludeTax: Type.Boolean(),
  timeZone: Type.String({ format: "time-zone" }),
  place: PointSchema,
  demo: Type.Boolean(),
});

/** Makes the business and its owner. It runs before there is a business, and so beside the door: once in an installation's life. */
export function openBusiness(
  hogar: Hogar,
  input: Static<typeof OpenBusiness>,
  owner: { name: string; mail: string; password: string },
): void {
  const b = checkInput(OpenBusiness, input);
  const { db, audit, sql } = hogar.store;
  db.transaction(() =>
    audit.under({ at: hogar.now(), actor: "system init", operation: "open-business" }, () => {
      insertRow(sql, "business", {
        id: 1,
        name: b.name,
        phone: b.phone,
        mail: b.mail,
        currency: b.currency,
        prices_include_tax: b.pricesIncludeTax ? 1 : 0,
        time_zone: b.timeZone,
        lng: b.place.lng,
        lat: b.place.lat,
        notice_minutes: 120,
        horizon_days: 42,
        hold_minutes: 10,
        deposit_minutes: 60,
        travel_margin_minutes: 2,
        travel_margin_percent: 10,
        payment_days: 14,
        message_from: 480,
        message_to: 1200,
        demo_offset_ms: b.demo ? 0 : null,
      });
      insertRow(sql, "reminder_rules", { minutes_before: 1440, outside: "earlier", asks: 0 });
      insertRow(sql, "people", {
        name: owner.name,
        mail: owner.mail,
        password_hash: hashSync(owner.password),
        role: "owner",
        active: 1,
      });
    }),
  ).immediate();
}
