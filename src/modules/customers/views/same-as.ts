import { Id, input, OrNull } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";
import { addressOf } from "@/modules/place/addresses";
import { AddressId } from "@/modules/place/inputs";
import { Type } from "@sinclair/typebox";
import { findSame } from "../same-person";

const Typed = Type.String({ maxLength: 120 });
/** As it is being typed: anything may be missing or half done. `but`: the customer that is being changed. */
const SameAs = input({ name: Typed, mail: Typed, phone: Typed, addressId: OrNull(AddressId), but: OrNull(Id) });

const most = 5;

/** Customers we know who may be the one that somebody is typing; the one who certainly is first. */
export const sameAs = defineView({
  name: "same-as",
  access: "customers.change of all",
  input: SameAs,
  read(context, { addressId, but, ...contact }) {
    const { sql } = context;
    if (contact.name.trim() === "") return [];
    const place = addressId === null ? null : addressOf(context, addressId);
    const places = place ? [`${place.line}, ${place.postcode}`] : [];
    const { same, possible } = findSame(context, { ...contact, places }, "the office", but);
    return [...new Set([...(same ? [same.id] : []), ...possible])].slice(0, most).map((id) => ({
      ...sql<{
        id: number;
        name: string;
        mail: string;
        phone: string;
        place: string | null;
        archived_at: number | null;
      }>(
        `SELECT id, name, mail, phone, archived_at,
            (SELECT line || ', ' || postcode FROM sites WHERE customer_id = c.id ORDER BY id LIMIT 1) AS place
          FROM customers c WHERE id = ?`,
      ).get(id)!,
      certain: same?.id === id,
    }));
  },
});
