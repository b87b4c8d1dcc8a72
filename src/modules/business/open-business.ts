import { checkInput } from "@/kernel/check-input";
import type { Hogar } from "@/kernel/hogar";
import { input, Mail, Name, Phone, PointSchema } from "@/kernel/inputs";
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
      sql(
        `INSERT INTO business (id, name, phone, mail, currency, prices_include_tax, time_zone, lng, lat, notice_minutes, horizon_days, hold_minutes, deposit_minutes,
           travel_margin_minutes, travel_margin_percent, payment_days, message_from, message_to, reminder_hours, demo_offset_ms)
         VALUES (1, ?, ?, ?, ?, ?, ?, ?, ?, 120, 42, 10, 60, 2, 10, 14, 480, 1200, 24, ?)`,
      ).run(
        b.name,
        b.phone,
        b.mail,
        b.currency,
        b.pricesIncludeTax ? 1 : 0,
        b.timeZone,
        b.place.lng,
        b.place.lat,
        b.demo ? 0 : null,
      );
      sql("INSERT INTO people (name, mail, password_hash, role, active) VALUES (?, ?, ?, 'owner', 1)").run(
        owner.name,
        owner.mail,
        hashSync(owner.password),
      );
    }),
  ).immediate();
}
