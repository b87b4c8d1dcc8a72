import { titleOf } from "@/core/catalogue/titles";
import { type Item } from "@/core/catalogue/items";
import { phoneKept, phoneProblem } from "@/core/people/phones";
import { Refusal } from "@/core/problems";
import { wishWords } from "@/core/windows/wishes";
import { DateText, Id, input, Mail, MinuteOfDay, PersonName, OrNull, Phone, windowChosen } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { takeRoom } from "@/modules/booking/room";
import { readItem } from "@/modules/catalogue/catalogue";
import { chosen, Items, orderAbout } from "@/modules/catalogue/inputs";
import { tellAll } from "@/modules/messages/telling-us";
import { isKeptPhoto, lostPhoto, claimPhotos } from "@/modules/pictures/photos";
import { addressOf } from "@/modules/place/addresses";
import { zoneOf } from "@/modules/place/zones";
import { answersWithin } from "@/modules/placing/windows";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { nanoid } from "nanoid";
import { Photos } from "../inputs";
import { agreeRequest, endRequest, readRequest, wantedOf } from "../requests";

const Wish = input({
  weekdays: Type.Integer({ minimum: 1, maximum: 127 }),
  from: MinuteOfDay,
  to: MinuteOfDay,
  until: OrNull(DateText),
});
/** What cannot be booked as it stands: an address of the look-up, or typed by hand; services where some were chosen; days and times that would suit. */
const MakeRequest = input({
  addressId: OrNull(chosen.addressId),
  items: Type.Optional(Type.Array(Items.items, { maxItems: 12 })),
  address: Type.String({ maxLength: 200 }),
  name: PersonName,
  mail: Mail,
  phone: Phone,
  wishes: Type.String({ maxLength: 1000 }),
  photos: Type.Optional(Photos),
  wish: Type.Optional(OrNull(Wish)),
});
const AnswerRequests = input({ ids: Type.Array(Id, { minItems: 1, maxItems: 200, uniqueItems: true }) });
/** Where a request is, as the office has found out. */
const LocateRequest = input({ requestId: Id, addressId: chosen.addressId });
/** A request booked by the office: at one of the windows that somebody can keep, or at any other that can. */
const BookRequest = input({ requestId: Id, ...windowChosen, serviceId: Type.Optional(Id) });

/**
 * Somebody asks for what cannot be booked as it stands, and a person answers: from outside all zones,
 * where the business takes such requests; where no window suits; where times are agreed in person.
 */
export const makeRequest = defineOperation({
  name: "make-request",
  access: "anybody",
  about: orderAbout,
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
    claimPhotos(context, photos);
    for (const { answers } of items) claimPhotos(context, Object.values(answers).flat().map(String));
    const id = insertRow(sql, "requests", {
      made_at: now,
      about,
      address_id: found?.id ?? null,
      items: JSON.stringify(items),
      photos: JSON.stringify(photos),
      wish: wish && JSON.stringify(wish),
      nonce: nanoid(32),
      address: where,
      lng: found?.lng ?? null,
      lat: found?.lat ?? null,
      name: name.trim(),
      mail: mail.trim(),
      phone: phoneKept(phone, business.phone),
      wishes: wishes.trim(),
    });
    const what = `${name.trim()} asks for ${titleOf(read) || "a visit"}: ${about}`;
    const said = [wish && wishWords(wish), wishes.trim() && `“${wishes.trim()}”`].filter(Boolean).join("\n");
    tellAll(context, {
      key: `request ${id}`,
      what,
      who: where,
      more: [phone.trim(), said].filter(Boolean).join("\n"),
    });
    return { id };
  },
});

/** The office has answered requests, by phone or mail. */
export const answerRequests = defineOperation({
  name: "answer-requests",
  access: "board.change of all",
  input: AnswerRequests,
  run(context, { ids }) {
    for (const id of ids) endRequest(context, readRequest(context, id).id, "answered");
  },
});

/** The office has found out where a request is: from then on it can be priced and booked. */
export const locateRequest = defineOperation({
  name: "locate-request",
  access: "board.change of all",
  input: LocateRequest,
  run(context, { requestId, addressId }) {
    const { id } = readRequest(context, requestId);
    const { line, postcode, lng, lat } = addressOf(context, addressId);
    context
      .sql("UPDATE requests SET address_id = ?, address = ?, lng = ?, lat = ? WHERE id = ?")
      .run(addressId, `${line}, ${postcode}`, lng, lat, id);
  },
});

/** The office books what was asked for, and tells the customer. */
export const bookRequest = defineOperation({
  name: "book-request",
  access: "board.change of all",
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
      null,
    );
    return { jobId };
  },
});
