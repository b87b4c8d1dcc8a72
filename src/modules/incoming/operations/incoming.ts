import { Refusal } from "@/core/problems";
import { Id, input, OrNull, windowChosen } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { giveApproval } from "@/modules/booking/approval";
import { tellAsker, tellCustomer } from "@/modules/messages/messaging";
import { mustHandle } from "@/modules/people/people";
import { moveTo } from "@/modules/placing/moving";
import { placingOf, type VisitRow } from "@/modules/placing/visits";
import { answersWithin } from "@/modules/placing/windows";
import { withdrawQuote } from "@/modules/quotes/quotes";
import { endRequest, readRequest } from "@/modules/requests/requests";
import { endWaiting, readWaiting } from "@/modules/requests/waiting";
import { Type } from "@sinclair/typebox";
import { IncomingEntry, TakenOn } from "../inputs";
import { setApproval } from "@/modules/jobs/work";

const Entries = Type.Array(IncomingEntry, { minItems: 1, maxItems: 200 });
const ApproveBookings = input({ jobIds: Type.Array(Id, { minItems: 1, maxItems: 200, uniqueItems: true }) });
const ProposeWindow = input({ jobId: Id, ...windowChosen });
const DeclineIncoming = input({ entries: Entries, reason: Type.String({ minLength: 3, maxLength: 400 }) });
const TakeOn = input({
  entries: Type.Array(TakenOn, { minItems: 1, maxItems: 200 }),
  personId: OrNull(Id),
});

/** The bookings stand as they were made, and the customers are told. */
export const approveBookings = defineOperation({
  name: "approve-bookings",
  access: "board.change of all",
  input: ApproveBookings,
  run(context, { jobIds }) {
    for (const jobId of jobIds) giveApproval(context, readWaiting(context, jobId).id);
  },
});

/** Another window for a booking that waits: its room is kept there, and the customer is asked. */
export const proposeWindow = defineOperation({
  name: "propose-window",
  access: "board.change of all",
  input: ProposeWindow,
  run(context, { jobId, date, from, to }) {
    readWaiting(context, jobId);
    const { sql, now } = context;
    const days = sql<VisitRow>("SELECT * FROM visits WHERE job_id = ? AND state = 'promised' ORDER BY window_from").all(
      jobId,
    );
    const [offer] = answersWithin(context, placingOf(days[0]!, days.length), [{ date, from, to }], {
      strict: false,
      without: days.map((d) => d.id),
    });
    if (!offer?.offered)
      throw new Refusal("cannot-be-kept", { sentence: "Nobody can keep this window. Choose another one." });
    moveTo(
      context,
      days,
      offer,
      offer.technicians.slice(0, days[0]!.crew).map((t) => Number(t.id)),
      { silent: true },
    );
    setApproval(context, jobId, "proposed");
    tellCustomer(context, { jobId, occasion: "proposed", about: `job ${jobId} at ${now}`, answer: true });
  },
});

/** Bookings and requests that cannot be met, with the reason as the customer reads it; what was paid goes back. */
export const declineIncoming = defineOperation({
  name: "decline-incoming",
  access: "board.change of all",
  input: DeclineIncoming,
  run(context, { entries, reason }) {
    for (const { kind, id } of entries) {
      if (kind === "booking") {
        endWaiting(context, id, "We could not come");
        tellCustomer(context, {
          jobId: id,
          occasion: "declined",
          about: `job ${id}`,
          answer: true,
          fields: { reason },
        });
      } else if (kind === "request") declineRequest(context, id, reason);
      else takeBackQuote(context, id, reason);
    }
  },
});

function declineRequest(context: OperationContext, id: number, reason: string): void {
  const request = readRequest(context, id);
  endRequest(context, id, "declined");
  tellAsker(context, request, { occasion: "request declined", about: `${id}`, fields: { reason } });
}

function takeBackQuote(context: OperationContext, id: number, reason: string): void {
  const quote = withdrawQuote(context, id);
  tellAsker(context, quote, { occasion: "quote withdrawn", about: `${id}`, fields: { reason } });
}

const tables = { booking: "jobs", request: "requests", quote: "quotes", repeat: "repeats" } as const;

/** Who is on it: somebody who may book and move visits, or nobody. */
export const takeOn = defineOperation({
  name: "take-on",
  access: "board.change of all",
  input: TakeOn,
  run(context, { entries, personId }) {
    mustHandle(context, personId);
    for (const { kind, id } of entries)
      context.sql(`UPDATE ${tables[kind]} SET handler_id = ? WHERE id = ?`).run(personId, id);
  },
});
