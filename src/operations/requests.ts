import { Refusal } from "@/core/problems";
import { AnswerRequest, MakeRequest } from "@/schemas/booking";
import { defineOperation } from "./door";
import { addressOf } from "./addresses";
import { zoneOf } from "./booking";
import { readService } from "./catalogue";

/**
 * Somebody asks for what cannot be booked as it stands, and a person answers: from outside all zones,
 * where the business takes such requests; where no window suits; where times are agreed in person.
 */
export const makeRequest = defineOperation({
  name: "make-request",
  access: "anybody",
  input: MakeRequest,
  run(context, { addressId, serviceId = null, address, name, mail, phone, wishes }) {
    const { sql, now, business } = context;
    const found = addressId === null ? null : addressOf(context, addressId);
    if (!found && !address.trim()) throw new Refusal("invalid-input", { fields: { "/address": "Say where it is." } });
    const inside = found !== null && zoneOf(context, found) !== null;
    const service = serviceId === null ? null : readService(context, serviceId);
    if (!inside && business.outside !== "request") throw new Refusal("outside-zones");
    if (inside && !service) throw new Refusal("invalid-input", { fields: { "/address": "We do come there: go back and book a time." } });
    if (inside && !wishes.trim()) throw new Refusal("invalid-input", { fields: { "/wishes": "Say which days and times would suit you." } });
    const about = !inside ? "outside our zones" : (service!.capacity ?? business.capacity) === "ask" ? "a time to be agreed" : "no window suits";
    return sql<{ id: number }>("INSERT INTO requests (made_at, about, service_id, address, lng, lat, name, mail, phone, wishes) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?) RETURNING id")
      .get(now, about, service?.id ?? null, found ? `${found.line}, ${found.postcode}` : address.trim(), found?.lng ?? null, found?.lat ?? null, name.trim(), mail.trim(), phone.trim(), wishes.trim())!;
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
