import { nanoid } from "nanoid";
import { phoneKept, phoneProblem } from "@/core/people/phones";
import { wishWords } from "@/core/windows/wishes";
import { Refusal } from "@/core/problems";
import { AnswerRequests, BookRequest, LocateRequest, MakeRequest } from "@/schemas/booking";
import { addressOf } from "./addresses";
import { tellBooked } from "./approval";
import {
  agreeJob,
  customerFor,
  findWanted,
  isKeptPhoto,
  lostPhoto,
  priceIn,
  siteFor,
  takeRoom,
  zoneOf,
  type Wanted,
} from "./booking";
import { readItem, titleOf, type Item } from "./catalogue";
import { actorWords, defineOperation, type OperationContext, type ViewContext } from "./door";
import { answersWithin } from "./placing";
import { tellAll } from "./telling-office";

export interface RequestRow {
  id: number;
  made_at: number;
  about: "outside our zones" | "no window suits" | "a time to be agreed";
  address_id: string | null;
  address: string;
  lng: number | null;
  lat: number | null;
  name: string;
  mail: string;
  phone: string;
  wishes: string;
  /** JSON: Item[], string[], Wish, ChosenWindow. */
  items: string;
  photos: string;
  wish: string | null;
  told: string | null;
  handler_id: number | null;
  outcome: "open" | "answered" | "declined" | "booked" | "withdrawn";
  job_id: number | null;
}

/**
 * Somebody asks for what cannot be booked as it stands, and a person answers: from outside all zones,
 * where the business takes such requests; where no window suits; where times are agreed in person.
 */
export const makeRequest = defineOperation({
  name: "make-request",
  access: "anybody",
  input: MakeRequest,
  run(context, { addressId, items: asked = [], address, name, mail, phone, wishes, photos = [], wish = null }) {
    const { sql, now, business } = context;
    const found = addressId === null ? null : addressOf(context, addressId);
    if (!found && !address.trim()) throw new Refusal("invalid-input", { fields: { "/address": "Say where it is." } });
    const inside = found !== null && zoneOf(context, found) !== null;
    const items = asked.map(({ quantity = 1, answers = {}, extras = [], serviceId }): Item => ({
      serviceId,
      quantity,
      answers,
      extras,
    }));
    const read = items.map((item) => readItem(context, item));
    const services = read.map(({ service }) => service);
    if (!inside && business.outside !== "request") throw new Refusal("outside-zones");
    if (inside && services.length === 0)
      throw new Refusal("invalid-input", { fields: { "/address": "We do come there: go back and book a time." } });
    if (inside && !wishes.trim() && !wish)
      throw new Refusal("invalid-input", { fields: { "/wishes": "Say which days and times would suit you." } });
    if (wish && wish.to <= wish.from)
      throw new Refusal("invalid-input", { fields: { "/wish": "The time ends after it begins." } });
    const wrongPhone = phoneProblem(phone, business.phone);
    if (wrongPhone) throw new Refusal("invalid-input", { fields: { "/phone": wrongPhone } });
    if (!photos.every((token) => isKeptPhoto(context, token)))
      throw new Refusal("invalid-input", { fields: { "/photos": lostPhoto } });
    const about = !inside
      ? "outside our zones"
      : services.some((s) => (s.capacity ?? business.capacity) === "ask")
        ? "a time to be agreed"
        : "no window suits";
    const where = found ? `${found.line}, ${found.postcode}` : address.trim();
    const { id } = sql<{ id: number }>(
      "INSERT INTO requests (made_at, about, address_id, items, photos, wish, nonce, address, lng, lat, name, mail, phone, wishes) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) RETURNING id",
    ).get(
      now,
      about,
      found?.id ?? null,
      JSON.stringify(items),
      JSON.stringify(photos),
      wish && JSON.stringify(wish),
      nanoid(32),
      where,
      found?.lng ?? null,
      found?.lat ?? null,
      name.trim(),
      mail.trim(),
      phoneKept(phone, business.phone),
      wishes.trim(),
    )!;
    const what = `${name.trim()} asks for ${titleOf(read) || "a visit"}: ${about}`;
    const said = [wish && wishWords(wish), wishes.trim() && `“${wishes.trim()}”`].filter(Boolean).join("\n");
    tellAll(context, {
      key: `request ${id}`,
      subject: what,
      body: `${what}\n${where}\n${phone.trim()}\n${said}\n`,
      who: where,
    });
    return { id };
  },
});

/** An open request by its id. */
export function readRequest({ sql }: ViewContext, id: number): RequestRow {
  const request = sql<RequestRow>("SELECT * FROM requests WHERE id = ?").get(id);
  if (!request || request.outcome !== "open") throw new Refusal("not-found");
  return request;
}

export const endRequest = (
  { sql, now }: OperationContext,
  id: number,
  outcome: RequestRow["outcome"],
  jobId: number | null = null,
): void =>
  void sql("UPDATE requests SET outcome = ?, answered_at = ?, job_id = ? WHERE id = ?").run(outcome, now, jobId, id);

/** The office has answered requests, by phone or mail. */
export const answerRequests = defineOperation({
  name: "answer-requests",
  access: "shared.change",
  input: AnswerRequests,
  run(context, { ids }) {
    for (const id of ids) endRequest(context, readRequest(context, id).id, "answered");
  },
});

/** The office has found out where a request is: from then on it can be priced and booked. */
export const locateRequest = defineOperation({
  name: "locate-request",
  access: "shared.change",
  input: LocateRequest,
  run(context, { requestId, addressId }) {
    const { id } = readRequest(context, requestId);
    const { line, postcode, lng, lat } = addressOf(context, addressId);
    context
      .sql("UPDATE requests SET address_id = ?, address = ?, lng = ?, lat = ? WHERE id = ?")
      .run(addressId, `${line}, ${postcode}`, lng, lat, id);
  },
});

/** What a request is about, to be placed: a service may be named by the office where none was chosen. Null where there is no known place or no service. */
export function wantedOf(
  context: ViewContext,
  request: RequestRow,
  { office = false, serviceId }: { office?: boolean; serviceId?: number } = {},
): Wanted | null {
  const chosen = JSON.parse(request.items) as Item[];
  const items = chosen.length || serviceId === undefined ? chosen : [{ serviceId }];
  return request.address_id === null || items.length === 0
    ? null
    : findWanted(context, { addressId: request.address_id, items }, { office });
}

/** The office books what was asked for, and tells the customer. */
export const bookRequest = defineOperation({
  name: "book-request",
  access: "shared.change",
  input: BookRequest,
  run(context, { requestId, serviceId, date, from, to }) {
    const request = readRequest(context, requestId);
    const wanted = wantedOf(context, request, { office: true, ...(serviceId !== undefined && { serviceId }) });
    if (!wanted) throw new Refusal("invalid-input", { fields: { "/serviceId": "Choose a service first." } });
    const [offer] = answersWithin(context, wanted.visit, [{ date, from, to }], { strict: false });
    if (!offer?.offered)
      throw new Refusal("cannot-be-kept", { sentence: "Nobody can keep this window any more. Choose another one." });
    const jobId = agreeRequest(
      context,
      request,
      wanted,
      takeRoom(context, wanted, offer, { key: null, until: context.now }),
      "office",
    );
    return { jobId };
  },
});

/** What was asked for is agreed, in the room that was taken for it. Answers the job's id. */
export function agreeRequest(
  context: OperationContext,
  request: RequestRow,
  wanted: Wanted,
  visitId: number,
  bookedBy: "front door" | "office",
): number {
  const { items, address, zone } = wanted;
  const order = priceIn(context, wanted, visitId);
  // On the phone no deposit is asked.
  const depositMinor = bookedBy === "office" ? 0 : order.depositMinor;
  const customerId = customerFor(context, { name: request.name, mail: request.mail, phone: request.phone }, address);
  const siteId = siteFor(context, customerId, address, zone?.id ?? null);
  const jobId = agreeJob(context, {
    reach: request,
    visitId,
    customerId,
    siteId,
    items,
    order,
    note: request.wishes,
    photos: JSON.parse(request.photos) as string[],
    depositMinor,
    bookedBy: bookedBy === "office" ? actorWords(context.actor) : bookedBy,
  });
  endRequest(context, request.id, "booked", jobId);
  if (depositMinor === 0) tellBooked(context, jobId);
  return jobId;
}
