import { intoHours } from "@/core/messages/falling";
import { Refusal } from "@/core/problems";
import { localOf } from "@/core/time/local";
import { type ChosenWindow, isOver, suits, type Wish } from "@/core/windows/wishes";
import { Id, input } from "@/kernel/inputs";
import { firstLinkTokenOf, linkTokenOf } from "@/kernel/links";
import { defineOperation, type OperationContext, type ViewContext } from "@/kernel/operation";
import { mayKeepRoom } from "@/modules/booking/unproved";
import { stillOffered, takeRoom } from "@/modules/booking/room";
import { agreementNow, AgreementRead, mustBeAsRead } from "@/modules/booking/agreed";
import { priceIn, type Wanted } from "@/modules/booking/wanted";
import { tellAsker, timesOf } from "@/modules/messages/messaging";
import { tellOffice } from "@/modules/messages/telling-us";
import { answersFor, bookableDates } from "@/modules/placing/windows";
import { chosenWindowColumn, wishColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";
import { WishToken } from "../inputs";
import { agreeRequest, depositAsked, endRequest, readRequest, type RequestRow, wantedOf } from "../requests";
import { openWish } from "../wishes";

const OneRequest = input({ id: Id });

/** Run every few minutes for each wish, one transaction each, so that nobody waits for all of them: tells whoever's wish can be met now, once for each window. */
export const meetWish = defineOperation({
  name: "meet-wish",
  access: "system",
  input: OneRequest,
  run(context, { id }) {
    const { sql, today, minute, business } = context;
    // Nobody is woken; and what is free at night may be gone in the morning, so it is looked at again then.
    const hours = { from: business.message_from, to: business.message_to };
    if (intoHours(minute, "drop", hours, business.time_zone) === null) return;
    const request = readRequest(context, id);
    const wish = wishColumn.read(request.wish!);
    if (isOver(wish, today)) return;
    const window = firstThatSuits(context, request, wish);
    const last = request.told === null ? null : chosenWindowColumn.read(request.told);
    if (!window || (last?.from === window.from && last.to === window.to)) return;
    sql("UPDATE requests SET told = ? WHERE id = ?").run(JSON.stringify(window), id);
    tellAsker(context, request, {
      occasion: "wish come true",
      unproved: true,
      about: `wish ${id} at ${window.from}`,
      opens: { kind: "wish", id },
      fields: timesOf(business.time_zone, [{ date: window.date, window_from: window.from, window_to: window.to }]),
    });
  },
});

/** The soonest window that can be promised and suits; null where there is none, or where the request cannot be placed any more. */
function firstThatSuits(context: ViewContext, request: RequestRow, wish: Wish): ChosenWindow | null {
  try {
    const wanted = wantedOf(context, request);
    if (!wanted) return null;
    const { time_zone: zone } = context.business;
    const offer = answersFor(context, wanted.visit, bookableDates(context)).find(
      (a) =>
        a.offered &&
        suits(wish, {
          date: a.date,
          from: localOf(a.from, zone).minute,
          to: localOf(a.from, zone).minute + a.to - a.from,
        }),
    );
    return offer ? { date: offer.date, from: offer.from, to: offer.to } : null;
  } catch (error) {
    if (error instanceof Refusal) return null;
    throw error;
  }
}

/** Takes the window that a wish was told of. Where it is gone again, the wish stays. */
export const takeWish = defineOperation({
  name: "take-wish",
  access: "anybody",
  input: input({ token: WishToken.properties.token, read: Type.Optional(AgreementRead) }),
  run(context, { token, read }) {
    const request = openWish(context, token);
    if (request.job_id !== null) return { link: firstLinkTokenOf(context.hogar, request.job_id) };
    const wanted = request.told === null ? null : wantedOf(context, request);
    if (!wanted) throw stillWaiting();
    const offer = offerOf(context, wanted, chosenWindowColumn.read(request.told!));
    const minutes = wanted.visit.minutes * wanted.visit.crew;
    mayKeepRoom(context, { date: offer.date, minutes }, request, request.way === "mail");
    const visitId = takeRoom(context, wanted, offer, { key: null, until: context.now });
    const order = priceIn(context, wanted, visitId);
    mustBeAsRead(context, read, agreementNow(context, wanted.items, order, depositAsked(context, order)));
    const jobId = agreeRequest(context, request, wanted, visitId, request.way);
    tellOffice(context, jobId);
    return { link: linkTokenOf(context.hogar, jobId)! };
  },
});

function offerOf(context: OperationContext, wanted: Wanted, window: ChosenWindow) {
  try {
    return stillOffered(context, wanted, window);
  } catch (error) {
    if (!(error instanceof Refusal) || error.problem.code !== "window-gone") throw error;
    throw stillWaiting();
  }
}

const stillWaiting = (): Refusal =>
  new Refusal("window-gone", {
    sentence: "Somebody was faster. You stay on our list: we write again when the next one opens.",
  });

/** Somebody no longer waits. */
export const withdrawWish = defineOperation({
  name: "withdraw-wish",
  access: "anybody",
  input: WishToken,
  run: (context, { token }) => endRequest(context, readRequest(context, openWish(context, token).id).id, "withdrawn"),
});
