import { everyone } from "@/core/customers/audience";
import { addDays } from "@/core/time/dates";
import type { Hogar } from "@/kernel/hogar";
import { sealedToken } from "@/kernel/links";
import { mustPerform, viewContext } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { openOffer } from "@/modules/campaigns/operations/by-link";
import { runCampaign, saveCampaign } from "@/modules/campaigns/operations/campaigns";
import { campaign } from "@/modules/campaigns/views/campaigns";
import { saveLoyalty } from "@/modules/money/operations/points";
import { answerReview, replyToReview, saveReviewRules } from "@/modules/reviews/operations/reviews";
import { office } from "./set-up";

const visitor = { kind: "visitor" } as const;

/** Customers are asked how it was two hours after the work, and get points for what they pay. */
export function wantThemBack(hogar: Hogar): void {
  mustPerform(
    hogar,
    saveReviewRules,
    {
      when: "done",
      hours: 2,
      restDays: 180,
      places: [
        { id: null, name: "Marrowick Neighbours", address: "https://neighbours.example/marrowick-hearth-and-flue" },
        { id: null, name: "Guild of Sweeps", address: "https://guild-of-sweeps.example/members/marrowick" },
      ],
    },
    office,
  );
  mustPerform(hogar, saveLoyalty, { perMinor: 100, worthMinor: 5, least: 100 }, office);
}

/** A campaign for the sweeping before winter, to those who have no visit to come. */
export function inviteThem(hogar: Hogar): void {
  const { sql } = hogar.store;
  const { today } = viewContext(hogar, office);
  const service = sql<{ id: number }>("SELECT id FROM services WHERE code = 'SW'").get()!;
  const coupon = sql<{ id: number }>("SELECT id FROM coupons WHERE code = 'SPRING10'").get()!;
  const begin = look(hogar, campaign, { id: null }, office);
  if (!begin.ok) throw new Error(begin.problem.sentence);
  const { id } = mustPerform(
    hogar,
    saveCampaign,
    {
      id: null,
      name: "Sweep before winter",
      serviceId: service.id,
      couponId: coupon.id,
      audience: { ...everyone, services: [service.id] },
      texts: begin.value.starting.texts,
      first: addDays(today, 2),
      last: addDays(today, 28),
      at: 8 * 60 + 30,
      mostADay: 8,
      answerDays: 5,
    },
    office,
  );
  mustPerform(hogar, runCampaign, { id }, office);
}

const said: [rating: number, praise: string, trouble: string][] = [
  [5, "Came on the minute, laid out a sheet before anything else, and the stove draws again.", ""],
  [5, "Friendly, quick, no dust anywhere.", ""],
  [4, "Good work, and explained what to look for next year.", ""],
  [5, "We book them every autumn.", ""],
  [2, "The work itself was fine.", "There was soot on the hall carpet afterwards, and nobody said a word about it."],
  [5, "", ""],
  [4, "All done in half an hour.", ""],
  [3, "It smokes less than before.", "The flap still rattles when it is windy."],
  [5, "Bram even fixed the door handle of the stove.", ""],
];

/** What customers say who were asked: most are content, one waits for an answer, one has had it. And some look at their offer. */
export function sayHowItWas(hogar: Hogar): void {
  const { sql } = hogar.store;
  for (const [i, { id }] of sql<{ id: number }>("SELECT id FROM reviews ORDER BY id LIMIT 60").all().entries()) {
    const [rating, praise, trouble] = said[i % said.length]!;
    // Half of them answer, and trouble is told once each.
    if ((i % 2 && !trouble) || (trouble && i >= said.length)) continue;
    const token = sealedToken(hogar, { kind: "review", id });
    mustPerform(hogar, answerReview, { token, rating, praise, trouble }, visitor);
  }
  const answered = sql<{ id: number }>(
    "SELECT id FROM reviews WHERE rating IS NOT NULL AND praise <> '' AND trouble = '' ORDER BY id",
  ).get();
  if (answered)
    mustPerform(
      hogar,
      replyToReview,
      { id: answered.id, words: "Thank you, that is good to hear. See you next autumn!" },
      office,
    );
  const invites = sql<{ id: number }>("SELECT id FROM campaign_invites ORDER BY id").all();
  for (const [i, { id }] of invites.entries())
    if (i % 2 === 0) mustPerform(hogar, openOffer, { token: sealedToken(hogar, { kind: "offer", id }) }, visitor);
}
