import type { Audience } from "@/core/customers/audience";
import type { CampaignTexts } from "@/core/messages/campaign-texts";
import { languages } from "@/core/messages/languages";
import { DateText, Id, input, MinuteOfDay, Money, Name, OrNull } from "@/kernel/inputs";
import { type Static, Type } from "@sinclair/typebox";

const Months = OrNull(Type.Integer({ minimum: 0, maximum: 240 }));
const Ids = Type.Array(Id, { maxItems: 200, uniqueItems: true });

export const AudienceInput = Type.Unsafe<Audience>(
  input({
    services: Ids,
    monthsAgoLeast: Months,
    monthsAgoMost: Months,
    zones: Ids,
    paidLeastMinor: OrNull(Money),
    noComing: Type.Boolean(),
    tag: OrNull(Type.String({ maxLength: 40 })),
    restDays: Type.Integer({ minimum: 0, maximum: 3650 }),
  }),
);

const Words = input({ subject: Type.String({ maxLength: 200 }), body: Type.String({ maxLength: 8_000 }) });
/** Its words by language and channel; a channel without words is not used. */
export const Texts = Type.Unsafe<CampaignTexts>(
  input(
    Object.fromEntries(
      languages.map((language) => [
        language,
        Type.Optional(input({ mail: Type.Optional(Words), text: Type.Optional(Words) })),
      ]),
    ),
  ),
);

export const CampaignInput = input({
  name: Name,
  serviceId: Id,
  couponId: OrNull(Id),
  audience: AudienceInput,
  texts: Texts,
  /** The days on which the visits may be. */
  first: DateText,
  last: DateText,
  /** When invitations go out each day, and how many at most. */
  at: MinuteOfDay,
  mostADay: Type.Integer({ minimum: 1, maximum: 500 }),
  /** For how many days the room of whoever was asked is kept free of other invitations. */
  answerDays: Type.Integer({ minimum: 1, maximum: 60 }),
});
export type CampaignInput = Static<typeof CampaignInput>;

export const OfferToken = input({ token: Type.String({ maxLength: 100 }) });
