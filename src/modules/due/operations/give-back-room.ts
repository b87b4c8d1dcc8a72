import { Refusal } from "@/core/problems";
import { DateText, Id, input, OrNull } from "@/kernel/inputs";
import { actorWords, defineOperation } from "@/kernel/operation";
import { logSecurity } from "@/kernel/security-log";
import { releaseHold } from "@/modules/booking/room";
import { unprovedRoom } from "@/modules/booking/unproved";
import { stopRepeatsOf } from "@/modules/repeats/repeats";
import { cancelJob } from "@/modules/visits/cancelling";
import { Type } from "@sinclair/typebox";
import { counted } from "@/core/words";

/** Of one network address (its hash, as Today names it), of one date, or of both; or all that one customer has booked by themselves. */
const GiveBackRoom = input({
  address: OrNull(Type.String({ maxLength: 80 })),
  date: OrNull(DateText),
  customerId: Type.Optional(OrNull(Id)),
});

/** Gives back all that unproved people keep from one address or on one day, or that one customer has booked by themselves: holds end, bookings are cancelled, and nobody is written to: a person calls whoever should know. */
export const giveBackRoom = defineOperation({
  name: "give-back-room",
  access: "board.change of all",
  input: GiveBackRoom,
  run(context, of) {
    if (of.address === null && of.date === null && !of.customerId) throw new Refusal("bad-request");
    const { holds, jobs } = unprovedRoom(context, of);
    for (const visitId of holds) releaseHold(context, visitId);
    for (const jobId of jobs) {
      stopRepeatsOf(context, jobId);
      cancelJob(context, jobId, true);
    }
    logSecurity(context.hogar.store, context.now, {
      kind: "room given back",
      who: actorWords(context.actor),
      words: `${counted(holds.length, "hold")} and ${counted(jobs.length, "booking")}${of.date ? ` on ${of.date}` : of.customerId ? ` of customer ${of.customerId}` : " from one address"}`,
    });
    return { holds: holds.length, bookings: jobs.length };
  },
});
