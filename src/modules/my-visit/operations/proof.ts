import { Refusal } from "@/core/problems";
import { input, Nothing } from "@/kernel/inputs";
import { actorWords, defineOperation } from "@/kernel/operation";
import { logSecurity } from "@/kernel/security-log";
import { sendCode, takeCode } from "@/modules/booking/codes";
import { findSame } from "@/modules/customers/same-person";
import { joinCustomers } from "@/modules/same-person/joining";
import { tellBooked } from "@/modules/messages/tell-booked";
import { tellOffice } from "@/modules/messages/telling-us";
import { Type } from "@sinclair/typebox";

const EnterCode = input({ code: Type.String({ minLength: 1, maxLength: 20 }) });

interface Booked {
  proof: "known" | "none" | "asked" | "paid" | "given";
  state: string;
  customer_id: number;
  name: string;
  mail: string;
  phone: string;
}
const bookedSql = "SELECT proof, state, customer_id, name, mail, phone FROM jobs WHERE id = ?";

/** What waited for a code and has lapsed stays so; whoever has cancelled may still show who they are. */
const hasLapsed = (proof: Booked["proof"], state: string): boolean => proof === "asked" && state === "cancelled";

/** Sends a code to whoever has booked, to show that they are reached as they typed. */
export const sendCodeByLink = defineOperation({
  name: "send-code-by-link",
  access: "link",
  input: Nothing,
  run(context) {
    const { actor, sql } = context;
    if (actor.kind !== "link") throw new Refusal("link-ended");
    const { proof, state } = sql<Booked>(bookedSql).get(actor.jobId)!;
    if (proof === "known" || proof === "given" || hasLapsed(proof, state)) throw new Refusal("visit-not-open");
    sendCode(context, actor.jobId);
  },
});

/**
 * Shows by a code that an email is one's own. What waited for it stands from now on; and where somebody of the same name and
 * email is known, the booking is theirs. The answer to a wrong code is no refusal, so that the try is counted.
 */
export const enterCodeByLink = defineOperation({
  name: "enter-code-by-link",
  access: "link",
  input: EnterCode,
  run(context, { code }) {
    const { actor, sql, now, hogar } = context;
    if (actor.kind !== "link") throw new Refusal("link-ended");
    const { jobId } = actor;
    const booked = sql<Booked>(bookedSql).get(jobId)!;
    if (booked.proof === "given" || booked.proof === "known") return { right: true };
    if (hasLapsed(booked.proof, booked.state)) throw new Refusal("visit-not-open");
    if (takeCode(context, jobId, code) === "wrong") {
      logSecurity(hogar.store, now, {
        kind: "code wrong",
        who: actorWords(actor),
        words: `for job ${jobId}`,
        address: context.origin.network,
      });
      return { right: false };
    }
    const { same } = findSame(context, booked, "mail", booked.customer_id);
    if (same) joinCustomers(context, same.id, booked.customer_id);
    if (booked.proof === "asked") {
      tellOffice(context, jobId);
      tellBooked(context, jobId);
    }
    return { right: true };
  },
});
