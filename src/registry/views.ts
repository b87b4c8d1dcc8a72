import { campaign, campaignAudience, campaignRoom, campaigns } from "@/modules/campaigns/views/campaigns";
import { offer, offerWindows } from "@/modules/campaigns/views/offer";
import { customerPoints, loyaltySetup, myPoints } from "@/modules/money/views/points";
import { review, reviewFigures, reviews, reviewSetup } from "@/modules/reviews/views/reviews";
import type { Actor } from "@/core/people/permissions";
import type { Result } from "@/core/problems";
import type { Hogar } from "@/kernel/hogar";
import { look, type View } from "@/kernel/view";
import { priceHistory } from "@/modules/catalogue/views/price-history";
import { customer } from "@/modules/customers/views/customer";
import { customerCards } from "@/modules/customers/views/cards";
import { customerChoices, customers } from "@/modules/customers/views/customers";
import { find } from "@/modules/customers/views/find";
import { sameAs } from "@/modules/customers/views/same-as";
import { mergingTerms, possibleDuplicates } from "@/modules/customers/views/same-person";
import {
  businessForSearch,
  checkBooker,
  checkCoupon,
  frontDoor,
  offers,
  previewFrontDoor,
  servicesAt,
} from "@/modules/front-door/views/front-door";
import { sharing } from "@/modules/front-door/views/sharing";
import { importRows, imports, oneImport } from "@/modules/imports/views/imports";
import { incoming, incomingEntry } from "@/modules/incoming/views/incoming";
import { invoice, invoices, money } from "@/modules/money/views/money";
import {
  creditNotePaper,
  invoicePaper,
  myCreditNote,
  myAccount,
  myInvoice,
  receiptPaper,
  statementPaper,
} from "@/modules/money/views/papers";
import { bankLines } from "@/modules/money/views/bank-lines";
import { payout, payouts } from "@/modules/money/views/payouts";
import { collection, collectionPlan, collectionRun, invoiceComing } from "@/modules/collection/views/collection";
import { credits } from "@/modules/money/views/credits";
import { payments } from "@/modules/money/views/payments";
import { invoiceChoices } from "@/modules/money/views/invoice-choices";
import { customerData } from "@/modules/customers/views/customer-data";
import { accountNumbers, booksClosed, report } from "@/modules/money/views/report";
import { moneyOverview } from "@/modules/money/views/money-overview";
import { toBillIds, toBillView } from "@/modules/money/views/to-bill";
import { customersPage, myCalendar, myOffers, myVisit } from "@/modules/my-visit/views/my-visit";
import { account } from "@/modules/people/views/account";
import { findAddress, typeAddress } from "@/modules/place/views/find-address";
import { townMap, whichZone, zoneMap } from "@/modules/place/views/zone-map";
import { board } from "@/modules/placing/views/board";
import { dayStrip } from "@/modules/placing/views/day-strip";
import { placementOptions } from "@/modules/placing/views/placement-options";
import { whyNot, whyNotChoices } from "@/modules/placing/views/why-not";
import { quote, quoteOffers, quotePaper } from "@/modules/quotes/views/quote";
import { quoteDraft } from "@/modules/quotes/views/quote-draft";
import { securityLog } from "@/modules/records/views/security-log";
import { whoDidWhat } from "@/modules/records/views/who-did-what";
import { againOffers, ask, askOffers } from "@/modules/repeats/views/ask";
import { myDateOffers, myDates, myRepeatCalendar } from "@/modules/my-visit/views/my-dates";
import { repeatCalendarView } from "@/modules/repeats/views/repeat-calendar";
import { repeatBeginning } from "@/modules/repeats/views/repeat-beginning";
import { messageFigures, messageLog } from "@/modules/messages/views/message-log";
import { messageSetup, previewMessage, template } from "@/modules/messages/views/message-setup";
import { thread, threads, visitNotes } from "@/modules/messages/views/threads";
import { customerAccount } from "@/modules/money/views/customer-account";
import { repeatBatches, repeatIds, repeatsProposal } from "@/modules/repeats/views/many";
import { changeAhead } from "@/modules/repeats/views/change-ahead";
import { repeatPlaces } from "@/modules/repeats/views/repeat-places";
import { repeatView } from "@/modules/repeats/views/repeat";
import { repeats, repeatsOutlook } from "@/modules/repeats/views/repeats";
import { wish } from "@/modules/requests/views/wish";
import { canBeBooked } from "@/modules/setup/views/can-be-booked";
import { touchedPromises } from "./touched-promises";
import { firstSteps } from "@/modules/setup/views/first-steps";
import { previewWindows } from "@/modules/setup/views/preview-windows";
import { setup } from "@/modules/setup/views/setup";
import { todayView } from "@/modules/today/views/today";
import { fieldDay } from "@/modules/visits/views/field";
import { visitSheet } from "@/modules/visits/views/visit-sheet";
import type { Static } from "@sinclair/typebox";

/** The views that can be asked for from outside, by name. */
export const views = {
  account: account,
  "message-figures": messageFigures,
  "message-log": messageLog,
  "message-setup": messageSetup,
  "preview-message": previewMessage,
  template: template,
  thread: thread,
  threads: threads,
  "visit-notes": visitNotes,
  "money-overview": moneyOverview,
  "invoice-choices": invoiceChoices,
  "quote-paper": quotePaper,
  report: report,
  "account-numbers": accountNumbers,
  "books-closed": booksClosed,
  "customer-data": customerData,
  "to-bill": toBillView,
  "to-bill-ids": toBillIds,
  "invoice-paper": invoicePaper,
  "credit-note-paper": creditNotePaper,
  "receipt-paper": receiptPaper,
  "statement-paper": statementPaper,
  "my-account": myAccount,
  "my-invoice": myInvoice,
  "my-credit-note": myCreditNote,
  "merging-terms": mergingTerms,
  "possible-duplicates": possibleDuplicates,
  board: board,
  "business-for-search": businessForSearch,
  "check-booker": checkBooker,
  "check-coupon": checkCoupon,
  customer: customer,
  customers: customers,
  "customer-cards": customerCards,
  "customer-choices": customerChoices,
  "customers-page": customersPage,
  "day-strip": dayStrip,
  "field-day": fieldDay,
  find: find,
  "find-address": findAddress,
  "first-steps": firstSteps,
  "touched-promises": touchedPromises,
  "can-be-booked": canBeBooked,
  "front-door": frontDoor,
  import: oneImport,
  "import-rows": importRows,
  imports: imports,
  incoming: incoming,
  "incoming-entry": incomingEntry,
  invoice: invoice,
  invoices: invoices,
  payments: payments,
  collection: collection,
  "collection-plan": collectionPlan,
  "invoice-coming": invoiceComing,
  "collection-run": collectionRun,
  credits: credits,
  "bank-lines": bankLines,
  payouts: payouts,
  payout: payout,
  money: money,
  "my-calendar": myCalendar,
  "my-offers": myOffers,
  "my-visit": myVisit,
  offers: offers,
  "placement-options": placementOptions,
  "preview-front-door": previewFrontDoor,
  "preview-windows": previewWindows,
  "price-history": priceHistory,
  quote: quote,
  "quote-draft": quoteDraft,
  "quote-offers": quoteOffers,
  repeat: repeatView,
  ask,
  "ask-offers": askOffers,
  "again-offers": againOffers,
  repeats: repeats,
  "repeats-outlook": repeatsOutlook,
  "repeat-change-ahead": changeAhead,
  "repeat-places": repeatPlaces,
  "repeat-ids": repeatIds,
  "customer-account": customerAccount,
  "repeats-proposal": repeatsProposal,
  "repeat-batches": repeatBatches,
  "repeat-beginning": repeatBeginning,
  "repeat-calendar": repeatCalendarView,
  "my-dates": myDates,
  "my-date-offers": myDateOffers,
  "my-repeat-calendar": myRepeatCalendar,
  "same-as": sameAs,
  "services-at": servicesAt,
  "security-log": securityLog,
  setup: setup,
  sharing: sharing,
  today: todayView,
  "town-map": townMap,
  "type-address": typeAddress,
  "visit-sheet": visitSheet,
  "which-zone": whichZone,
  "why-not": whyNot,
  "why-not-choices": whyNotChoices,
  "who-did-what": whoDidWhat,
  wish: wish,
  "zone-map": zoneMap,
  campaign,
  "campaign-audience": campaignAudience,
  "campaign-room": campaignRoom,
  campaigns,
  "customer-points": customerPoints,
  "loyalty-setup": loyaltySetup,
  "my-points": myPoints,
  offer,
  "offer-windows": offerWindows,
  review,
  "review-figures": reviewFigures,
  "review-setup": reviewSetup,
  reviews,
} as const;

type Views = typeof views;
export type ViewName = keyof Views;
export type ViewInput<N extends ViewName> = Static<Views[N]["input"]>;
export type ViewOutput<N extends ViewName> = ReturnType<Views[N]["read"]>;

/** A view by its name as it came in, or null. */
export const viewNamed = (name: string): View | null =>
  Object.hasOwn(views, name) ? (views[name as ViewName] as unknown as View) : null;

/** Reads a view by its name, as somebody. */
export const lookAt = <N extends ViewName>(
  hogar: Hogar,
  name: N,
  input: ViewInput<N>,
  actor: Actor,
): Result<ViewOutput<N>> => look(hogar, views[name] as unknown as View, input, actor) as Result<ViewOutput<N>>;
