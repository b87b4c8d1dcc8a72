import { Refusal } from "@/core/problems";
import { Id, input } from "@/kernel/inputs";
import { actorWords, defineOperation } from "@/kernel/operation";
import { chosen, OfficeItems, orderAbout } from "@/modules/catalogue/inputs";
import { customerFor, siteFor } from "@/modules/customers/customers";
import { tellCustomer } from "@/modules/messages/messaging";
import { zoneOf } from "@/modules/place/zones";
import { Type } from "@sinclair/typebox";
import { agreeJob } from "../agree";
import { Booker } from "../inputs";
import { stillOffered, takeRoom } from "../room";
import { findWanted, priceIn } from "../wanted";
import { reopenCustomer } from "@/modules/customers/customers";

const BookInOffice = input({
  ...chosen,
  items: OfficeItems,
  customer: Type.Union([input({ id: Id }), Booker]),
  note: Type.String({ maxLength: 1000 }),
  /** Their loyalty points take something off. */
  usePoints: Type.Optional(Type.Boolean()),
});

/** The office books while on the phone: without a deposit, on any offered window, with a wanted technician where one is named. */
export const bookInOffice = defineOperation({
  name: "book-in-office",
  access: "board.change",
  about: { "customer.id": "customer", ...orderAbout },
  input: BookInOffice,
  run(context, input) {
    const wanted = findWanted(context, input, {
      office: true,
      pointsOf: input.usePoints && "id" in input.customer ? input.customer.id : null,
    });
    const offer = stillOffered(context, wanted, input, { office: true });
    const wished = input.technicianId ? offer.technicians.filter((t) => t.id === String(input.technicianId)) : [];
    const technicians = wanted.visit.crew === 1 && wished.length ? wished : offer.technicians;
    const visitId = takeRoom(context, wanted, { ...offer, technicians }, { key: null, until: context.now });
    const customerId =
      "id" in input.customer
        ? known(input.customer.id)
        : customerFor(context, input.customer, wanted.address, "the office").customerId;
    const siteId = siteFor(context, customerId, wanted.address, zoneOf(context, wanted.address)?.id ?? null);
    const jobId = agreeJob(context, {
      ...("id" in input.customer ? {} : { agreed: input.customer }),
      visitId,
      customerId,
      siteId,
      items: wanted.items,
      order: priceIn(context, wanted, visitId),
      note: input.note,
      depositMinor: 0,
      bookedBy: actorWords(context.actor),
    });
    tellCustomer(context, { jobId, occasion: "booked", about: `job ${jobId}`, answer: true });
    // The link goes to the customer, and leaves to nobody else but by copy-link.
    return { jobId, visitId };

    function known(id: number): number {
      // Whoever was put away and is booked for is back.
      if (!reopenCustomer(context, id)) throw new Refusal("not-found");
      return id;
    }
  },
});
