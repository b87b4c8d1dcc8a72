import type { CustomerFilter } from "@/core/customers/filter";
import { contactUses } from "@/core/people/contact-persons";
import { Id, input, Mail, OneOf, OrNull, PersonName, Phone } from "@/kernel/inputs";
import { AddressId } from "@/modules/place/inputs";
import { type Static, Type } from "@sinclair/typebox";

const Empty = Type.Literal("");
const Note = Type.String({ maxLength: 2000 });
const Tags = Type.Array(Type.String({ minLength: 1, maxLength: 40, pattern: "\\S" }), { maxItems: 30 });

/** How somebody is reached, where it is known at all: the office does not always have both. */
const MailOrNone = Type.Union([Empty, Mail]);
const PhoneOrNone = Type.Union([Empty, Phone]);

export const siteDetails = {
  /** What they call it: "the mill". */
  name: Type.String({ maxLength: 60 }),
  access: Type.String({ maxLength: 600 }),
  parking: Type.String({ maxLength: 600 }),
};

const customerDetails = {
  name: PersonName,
  mail: MailOrNone,
  phone: PhoneOrNone,
  reachedBy: OneOf(["any", "email", "text", "phone"]),
  tags: Tags,
  source: Type.String({ maxLength: 80 }),
  /** Null: as the business. */
  paymentDays: OrNull(Type.Integer({ minimum: 0, maximum: 365 })),
  /** How they are billed: null is as the business; left out, it stays. */
  billing: Type.Optional(
    input({
      by: OrNull(OneOf(["job", "month", "hand"])),
      paymentFrom: OneOf(["invoice", "end of month"]),
      taxKind: OneOf(["standard", "reverse charge", "exempt"]),
      taxNumber: Type.String({ maxLength: 60 }),
    }),
  ),
  technicianNote: Note,
  insideNote: Note,
  /** To whom bills go, where not to themselves. */
  bill: OrNull(input({ name: PersonName, mail: MailOrNone, address: Type.String({ maxLength: 200 }) })),
  /** Others who are reached for them; left out, they stay. */
  contacts: Type.Optional(
    Type.Array(
      input({
        name: PersonName,
        role: Type.String({ maxLength: 60 }),
        mail: MailOrNone,
        phone: PhoneOrNone,
        uses: Type.Array(OneOf(contactUses), { maxItems: 3 }),
      }),
      { maxItems: 12 },
    ),
  ),
  reminders: Type.Boolean(),
  offers: Type.Boolean(),
};

export const SaveCustomer = input({
  id: OrNull(Id),
  ...customerDetails,
  /** The first site of somebody new, where it is known. */
  site: Type.Optional(OrNull(input({ addressId: AddressId, ...siteDetails }))),
});
export type SaveCustomer = Static<typeof SaveCustomer>;

export const Filter = Type.Unsafe<CustomerFilter>(
  input({
    openMoney: Type.Boolean(),
    noVisitDays: OrNull(Type.Integer({ minimum: 1, maximum: 3650 })),
    noComing: Type.Boolean(),
    zoneId: OrNull(Id),
    source: OrNull(Type.String({ maxLength: 80 })),
    tag: OrNull(Type.String({ maxLength: 40 })),
    archived: Type.Boolean(),
  }),
);
