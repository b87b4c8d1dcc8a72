import { fieldsOf } from "@/core/messages/occasions";
import { couponProblem } from "@/core/catalogue/coupons";
import { templateProblems } from "@/core/messages/templates";
import { Refusal } from "@/core/problems";
import { Id, input, OrNull } from "@/kernel/inputs";
import { actorWords, defineOperation, type OperationContext } from "@/kernel/operation";
import { readCoupons } from "@/modules/catalogue/coupons";
import { readService } from "@/modules/catalogue/catalogue";
import { campaignTextsColumn } from "@/store/columns";
import { insertRow } from "@/store/insert";
import { type CampaignRow, readCampaign } from "../campaigns";
import { channelsFor } from "../audience";
import { CampaignInput } from "../inputs";
import { nextTurn } from "../inviting";

const OneCampaign = input({ id: Id });

/** What is wrong with a campaign that is being written, by field. */
function wrongIn(context: OperationContext, campaign: CampaignInput): Record<string, string> {
  const { audience, texts, first, last, serviceId, couponId } = campaign;
  const wrong: Record<string, string> = {};
  if (last < first) wrong["/last"] = "The last day is not before the first.";
  else if (last <= context.today) wrong["/last"] = "Its last day is over. Choose a later one.";
  const { monthsAgoLeast: least, monthsAgoMost: most } = audience;
  if (least !== null && most !== null && most < least)
    wrong["/audience/monthsAgoMost"] = "This is sooner than the months before it.";
  if (!readService(context, serviceId).active) wrong["/serviceId"] = "This service is archived. Choose another one.";
  const coupon = couponId === null ? null : readCoupons(context).find(({ id }) => id === couponId);
  if (couponId !== null) {
    const problem = couponProblem(coupon?.active ? coupon : null, { serviceIds: [serviceId], today: context.today });
    if (problem) wrong["/couponId"] = problem;
    else if (coupon!.last && coupon!.last < last) wrong["/couponId"] = "This code ends before the last day.";
  }
  const own = texts[context.business.language];
  if (!own?.mail && !own?.text) wrong["/texts"] = "Write an email, a text, or both.";
  for (const [language, words] of Object.entries(texts))
    for (const [channel, { subject, body }] of Object.entries(words)) {
      const at = `/texts/${language}/${channel}`;
      const [inSubject] = templateProblems(subject, fieldsOf("offer"));
      const [inBody] = templateProblems(body, fieldsOf("offer"));
      if (inSubject) wrong[`${at}/subject`] = inSubject;
      else if (channel === "mail" && !subject.trim()) wrong[`${at}/subject`] = "Write what the email is called.";
      if (inBody) wrong[`${at}/body`] = inBody;
      else if (!body.includes("{{my_link}}"))
        wrong[`${at}/body`] = "Write {{my_link}} where the link to the times stands.";
    }
  return wrong;
}

/** A campaign that is being written. What runs already keeps its service, its coupon and its days; words and numbers may change. */
export const saveCampaign = defineOperation({
  name: "save-campaign",
  access: "setup.change of all",
  input: input({ id: OrNull(Id), ...CampaignInput.properties }),
  run(context, { id, ...campaign }) {
    const wrong = wrongIn(context, campaign);
    if (Object.keys(wrong).length) throw new Refusal("invalid-input", { fields: wrong });
    const before = id === null ? null : readCampaign(context, id);
    if (before && before.state === "ended") throw ended();
    const values = {
      name: campaign.name.trim(),
      service_id: campaign.serviceId,
      coupon_id: campaign.couponId,
      audience: JSON.stringify(campaign.audience),
      texts: JSON.stringify(campaign.texts),
      first_date: campaign.first,
      last_date: campaign.last,
      at_minute: Math.min(campaign.at, 1439),
      most_a_day: campaign.mostADay,
      answer_days: campaign.answerDays,
    };
    if (before === null)
      return {
        id: insertRow(context.sql, "campaigns", {
          ...values,
          state: "draft",
          made_by: actorWords(context.actor),
          made_at: context.now,
        }),
      };
    if (before.state !== "draft") {
      const kept: Record<string, string> = {};
      const asSent = "Invitations with this have gone out. Begin another campaign for it.";
      if (values.service_id !== before.service_id) kept["/serviceId"] = asSent;
      if (values.coupon_id !== before.coupon_id) kept["/couponId"] = asSent;
      if (values.last_date < before.last_date) kept["/last"] = asSent;
      if (Object.keys(kept).length) throw new Refusal("invalid-input", { fields: kept });
    }
    const set = Object.keys(values).map((column) => `${column} = @${column}`);
    context.sql(`UPDATE campaigns SET ${set.join(", ")} WHERE id = @id`).run({ ...values, id });
    if (before.state === "running") runFrom(context, before.id, values);
    return { id: before.id };
  },
});

const ended = () =>
  new Refusal("not-allowed", {
    sentence: "This campaign has ended. Copy it to begin another one with the same words.",
  });

const runFrom = (context: OperationContext, id: number, at: Pick<CampaignRow, "at_minute">): void =>
  void context.sql("UPDATE campaigns SET next_at = ? WHERE id = ?").run(nextTurn(context, at), id);

/** It runs, from its next time of day on; one that was paused goes on. */
export const runCampaign = defineOperation({
  name: "run-campaign",
  access: "setup.change of all",
  input: OneCampaign,
  run(context, { id }) {
    const campaign = readCampaign(context, id);
    if (campaign.state === "running") return;
    if (campaign.state === "ended") throw ended();
    if (campaign.last_date <= context.today)
      throw new Refusal("not-allowed", { sentence: "Its last day is over. Choose a later one first." });
    if (channelsFor(context, campaignTextsColumn.read(campaign.texts)).length === 0)
      throw new Refusal("not-allowed", {
        sentence:
          "Offers are switched off under Set-up, Occasions, or go out by no channel that this campaign has words for.",
      });
    context
      .sql("UPDATE campaigns SET state = 'running', next_at = ?, began_at = coalesce(began_at, ?) WHERE id = ?")
      .run(nextTurn(context, campaign), context.now, id);
  },
});

/** Nobody more is invited until it runs again; links that went out stay good. */
export const pauseCampaign = defineOperation({
  name: "pause-campaign",
  access: "setup.change of all",
  input: OneCampaign,
  run(context, { id }) {
    if (readCampaign(context, id).state !== "running") return;
    context.sql("UPDATE campaigns SET state = 'paused', next_at = NULL WHERE id = ?").run(id);
  },
});

/** It is over for good; links that went out stay good until its last day. */
export const endCampaign = defineOperation({
  name: "end-campaign",
  access: "setup.change of all",
  input: OneCampaign,
  run(context, { id }) {
    const { state } = readCampaign(context, id);
    if (state === "ended") return;
    endOf(context, id, "You have ended it.");
  },
});

export const endOf = ({ sql, now }: OperationContext, id: number, why: string): void =>
  void sql(
    "UPDATE campaigns SET state = 'ended', next_at = NULL, end_reason = ?, ended_at = ? WHERE id = ? AND state <> 'ended'",
  ).run(why, now, id);

/** A draft that nobody was invited by is thrown away. */
export const removeCampaign = defineOperation({
  name: "remove-campaign",
  access: "setup.change of all",
  input: OneCampaign,
  run(context, { id }) {
    if (readCampaign(context, id).state !== "draft")
      throw new Refusal("in-use", { sentence: "It has run already: end it, and its results stay." });
    context.sql("DELETE FROM campaigns WHERE id = ?").run(id);
  },
});
