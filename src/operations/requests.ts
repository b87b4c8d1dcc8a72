import { Refusal } from "@/core/problems";
import { AnswerRequest, MakeRequest } from "@/schemas/booking";
import { defineOperation } from "./door";
import { zoneOf } from "./booking";

/** Somebody outside all zones asks for a visit, where the business takes such requests. A person answers. */
export const makeRequest = defineOperation({
  name: "make-request",
  access: "anybody",
  input: MakeRequest,
  run(context, { addressId, address, name, mail, phone, wishes }) {
    const { sql, hogar, now, business } = context;
    if (business.outside !== "request") throw new Refusal("outside-zones");
    const found = addressId === null ? null : hogar.gateways.places.find(addressId);
    if (!found && !address.trim()) throw new Refusal("invalid-input", { fields: { "/address": "Say where it is." } });
    if (found && zoneOf(context, found)) throw new Refusal("invalid-input", { fields: { "/address": "We do come there: go back and book a time." } });
    return sql<{ id: number }>("INSERT INTO requests (made_at, about, address, lng, lat, name, mail, phone, wishes) VALUES (?, 'outside our zones', ?, ?, ?, ?, ?, ?, ?) RETURNING id")
      .get(now, found ? `${found.line}, ${found.postcode}` : address.trim(), found?.lng ?? null, found?.lat ?? null, name.trim(), mail.trim(), phone.trim(), wishes.trim())!;
  },
});

/** The office has answered a request. */
export const answerRequest = defineOperation({
  name: "answer-request",
  access: "board.change",
  input: AnswerRequest,
  run({ sql, now }, { id }) {
    if (sql("UPDATE requests SET answered_at = ? WHERE id = ? AND answered_at IS NULL").run(now, id).changes === 0) throw new Refusal("not-found");
  },
});
