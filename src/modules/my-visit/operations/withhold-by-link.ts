import { Refusal } from "@/core/problems";
import { input, OneOf } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { ChannelName } from "@/modules/messages/inputs";
import { withhold } from "@/modules/customers/consents";
import { Type } from "@sinclair/typebox";

/** A customer says by which channels what they have agreed to comes. */
export const withholdByLink = defineOperation({
  name: "withhold-by-link",
  access: "link",
  input: input({ purpose: OneOf(["reminders", "offers"]), channel: ChannelName, wanted: Type.Boolean() }),
  run(context, wish) {
    if (context.actor.kind !== "link") throw new Refusal("link-ended");
    withhold(context, context.actor.customerId, wish);
  },
});
