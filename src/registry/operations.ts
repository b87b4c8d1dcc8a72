import { settleUnkept } from "@/modules/placing/operations/settle-unkept";
import { rezoneSites } from "@/modules/customers/operations/rezone";
import { promisingOperations } from "./promising";
import { decideCharge } from "@/modules/money/operations/record-outcomes";
import {
  endCampaign,
  pauseCampaign,
  removeCampaign,
  runCampaign,
  saveCampaign,
} from "@/modules/campaigns/operations/campaigns";
import { openOffer, takeOffer } from "@/modules/campaigns/operations/by-link";
import { givePoints, saveLoyalty } from "@/modules/money/operations/points";
import {
  answerReview,
  goToReviewPlace,
  replyToReview,
  saveReviewRules,
  settleReview,
} from "@/modules/reviews/operations/reviews";
import type { Operation } from "@/kernel/operation";
import { bookInOffice } from "@/modules/booking/operations/book-in-office";
import { copyLink } from "@/modules/booking/operations/copy-link";
import { holdOffer } from "@/modules/booking/operations/hold-offer";
import { renewLink } from "@/modules/booking/operations/renew-link";
import { moveClock } from "@/modules/business/operations/move-clock";
import { saveBusiness } from "@/modules/business/operations/save-business";
import { changePrices, setPrices } from "@/modules/catalogue/operations/prices";
import { saveCoupon } from "@/modules/catalogue/operations/save-coupon";
import { saveJobPattern } from "@/modules/catalogue/operations/save-job-pattern";
import { saveExtra } from "@/modules/catalogue/operations/save-extra";
import { duplicateService, orderServices } from "@/modules/catalogue/operations/save-service";
import { archiveCustomer, eraseCustomer } from "@/modules/customers/operations/archive-customer";
import { saveCustomer } from "@/modules/customers/operations/save-customer";
import { removeView, saveView } from "@/modules/customers/operations/saved-views";
import { archiveSite, saveSite } from "@/modules/customers/operations/sites";
import { keepApart, mergeCustomers, splitCustomers } from "@/modules/customers/operations/same-person";
import {
  matchThread,
  openThread,
  readThread,
  settleThread,
  snoozeThread,
  takeThread,
  writeByHand,
  writeNote,
} from "@/modules/messages/operations/conversation";
import { tellLate } from "@/modules/visits/operations/tell-late";
import { askQuestion } from "@/modules/messages/operations/receive";
import { resetTemplate, saveOccasion, saveSender, saveTemplate } from "@/modules/messages/operations/save-occasion";
import { saveLanguage, saveStop, saveWithheld } from "@/modules/messages/operations/save-reach";
import { withholdByLink } from "@/modules/my-visit/operations/withhold-by-link";
import { saveMessageRules } from "@/modules/messages/operations/save-rules";
import { stopByMessage } from "@/modules/messages/operations/stop-by-message";
import { sendTest } from "@/modules/messages/operations/send-test";
import { book } from "@/modules/front-door/operations/book";
import { saveDirectory } from "@/modules/front-door/operations/save-directory";
import { saveFrontDoor } from "@/modules/front-door/operations/save-front-door";
import { addSource, removeSource } from "@/modules/front-door/operations/sources";
import {
  addImportRows,
  beginImport,
  changeImportRow,
  decideImportRows,
  dropImport,
  stopImport,
  takeImport,
  undoImport,
} from "@/modules/imports/operations/imports";
import { approveBookings, declineIncoming, proposeWindow, takeOn } from "@/modules/incoming/operations/incoming";
import { addCard, chargeFirst, forgetCard, removeCard } from "@/modules/money/operations/cards";
import { handOverCash, payOutTips, takePayment } from "@/modules/money/operations/cash";
import { billCustomerByHand, makeInvoice } from "@/modules/money/operations/billing";
import { chargeInvoices, payOwed } from "@/modules/money/operations/charge-invoices";
import { closeBooks } from "@/modules/money/operations/close-books";
import { saveAccountNumbers } from "@/modules/money/operations/save-account-numbers";
import { copyInvoiceLink } from "@/modules/money/operations/copy-invoice-link";
import { payByCard, payInvoice, takeAnotherCard, takeAnotherCardFor } from "@/modules/money/operations/pay-by-card";
import {
  creditInvoiceByHand,
  invoiceAgain,
  refundPayment,
  takeBackPayment,
  useCredit,
  undoWriteOff,
  writeOff,
} from "@/modules/money/operations/corrections";
import { recordPayment } from "@/modules/money/operations/record-payment";
import {
  addByLink,
  answerByLink,
  cancelByLink,
  confirmByLink,
  consentByLink,
  goAgainByLink,
  moveByLink,
  repeatByLink,
} from "@/modules/my-visit/operations/by-link";
import { enterCodeByLink, sendCodeByLink } from "@/modules/my-visit/operations/proof";
import { endOwnSession } from "@/modules/people/operations/end-own-session";
import { endSessions } from "@/modules/people/operations/end-sessions";
import { handIncoming } from "@/modules/people/operations/hand-incoming";
import { saveSecurity } from "@/modules/people/operations/save-security";
import { savePerson } from "@/modules/people/operations/save-person";
import { saveBookingRules } from "@/modules/placing/operations/booking-rules";
import { moveVisit } from "@/modules/placing/operations/move-visit";
import { removeSpecialDay } from "@/modules/placing/operations/opening";
import { tryAgain } from "@/modules/due/operations/try-again";
import { sendNow } from "@/modules/messages/operations/send-now";
import { takeAsYes } from "@/modules/messages/operations/take-as-yes";
import { settleLost } from "@/modules/messages/operations/settle-lost";
import { giveBackRoom } from "@/modules/due/operations/give-back-room";
import { askReader, endReader, takeCard } from "@/modules/money/operations/door-cards";
import { splitByLink, splitInvoice } from "@/modules/money/operations/parts";
import {
  matchBankLine,
  postBankLine,
  reopenBankLine,
  saveOwnAccount,
  setAsideBankLine,
} from "@/modules/money/operations/bank";
import { payOutNow, payoutIsThere } from "@/modules/money/operations/payouts";
import {
  agreeCollection,
  beginRun,
  answerObjection,
  objectToCharge,
  promiseDay,
  recordCall,
  saveCollection,
  setCollection,
  setCustomerCollection,
  takeDownPromise,
} from "@/modules/collection/operations/choices";
import { waiveFee } from "@/modules/money/operations/late-fees";
import { acceptQuote, bookQuote, declineQuote, putAwayQuotes } from "@/modules/quotes/operations/quotes";
import { sendQuote } from "@/modules/quotes/operations/send-quote";
import { answerAsked, askNow, bookAgain, bookAskedByLink, leaveOutAsked } from "@/modules/repeats/operations/asks";
import {
  agreeRepeatDate,
  changeRepeat,
  endPause,
  pauseRepeat,
  undoRepeatChange,
} from "@/modules/repeats/operations/changes";
import { beginRepeatBatch, endRepeatBatch } from "@/modules/repeats/operations/batches";
import { reviewRepeatPrice, setRepeatPrice, setRepeatWays, setRepeatWork } from "@/modules/repeats/operations/ways";
import { endRepeat, lookForRoom, makeRepeat, promiseDate, resumeRepeat } from "@/modules/repeats/operations/repeats";
import { moveRepeatVisit } from "@/modules/repeats/operations/move-repeat-visit";
import {
  changeDateByLink,
  endPauseByLink,
  pauseByLink,
  restoreDateByLink,
} from "@/modules/my-visit/operations/own-dates";
import { agreeRepeat } from "@/modules/repeats/operations/agree-repeat";
import { setAgain } from "@/modules/repeats/operations/set-again";
import { answerRequests, bookRequest, locateRequest, makeRequest } from "@/modules/requests/operations/requests";
import { takeWish, withdrawWish } from "@/modules/requests/operations/wishes";
import { takeKit } from "@/modules/setup/operations/take-kit";
import {
  recordErrand,
  recordTimeOff,
  removeErrand,
  removeTimeOff,
  setDayHours,
} from "@/modules/team/operations/absences";
import { setTechnicianActive } from "@/modules/team/operations/save-technician";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { cancelVisit } from "@/modules/visits/operations/cancel-visit";
import type { Static } from "@sinclair/typebox";

/** The operations that can be called from outside, by name. What the system alone does is not among them. */
export const operations = {
  "accept-quote": acceptQuote,
  "ask-reader": askReader,
  "end-reader": endReader,
  "take-card": takeCard,
  "pay-out-tips": payOutTips,
  "agree-collection": agreeCollection,
  "object-to-charge": objectToCharge,
  "answer-objection": answerObjection,
  "promise-payment": promiseDay,
  "record-promise": takeDownPromise,
  "record-call": recordCall,
  "save-collection": saveCollection,
  "set-collection": setCollection,
  "set-customer-collection": setCustomerCollection,
  "record-payout-arrived": payoutIsThere,
  "split-invoice": splitInvoice,
  "pay-in-parts": splitByLink,
  "begin-collection-run": beginRun,
  "pay-out-now": payOutNow,
  "match-bank-line": matchBankLine,
  "set-aside-bank-line": setAsideBankLine,
  "post-bank-line": postBankLine,
  "save-own-account": saveOwnAccount,
  "close-books": closeBooks,
  "reopen-bank-line": reopenBankLine,
  "waive-late-fee": waiveFee,
  "add-by-link": addByLink,
  "add-import-rows": addImportRows,
  "add-source": addSource,
  "advance-visit": advanceVisit,
  "answer-by-link": answerByLink,
  "answer-requests": answerRequests,
  "approve-bookings": approveBookings,
  "archive-customer": archiveCustomer,
  "archive-site": archiveSite,
  "begin-import": beginImport,
  book: book,
  "book-in-office": bookInOffice,
  "book-quote": bookQuote,
  "book-request": bookRequest,
  "cancel-by-link": cancelByLink,
  "cancel-visit": cancelVisit,
  "change-import-row": changeImportRow,
  "change-prices": changePrices,
  "confirm-by-link": confirmByLink,
  "copy-link": copyLink,
  "decide-import-rows": decideImportRows,
  "decline-incoming": declineIncoming,
  "decline-quote": declineQuote,
  "drop-import": dropImport,
  "duplicate-service": duplicateService,
  "erase-customer": eraseCustomer,
  "end-repeat": endRepeat,
  "change-repeat": changeRepeat,
  "undo-repeat-change": undoRepeatChange,
  "set-repeat-ways": setRepeatWays,
  "set-repeat-price": setRepeatPrice,
  "set-repeat-work": setRepeatWork,
  "begin-repeat-batch": beginRepeatBatch,
  "end-repeat-batch": endRepeatBatch,
  "promise-date": promiseDate,
  "ask-now": askNow,
  "book-again": bookAgain,
  "leave-out-asked": leaveOutAsked,
  "book-asked": bookAskedByLink,
  "answer-asked": answerAsked,
  "set-again": setAgain,
  "agree-repeat": agreeRepeat,
  "change-date-by-link": changeDateByLink,
  "restore-date-by-link": restoreDateByLink,
  "pause-by-link": pauseByLink,
  "end-pause-by-link": endPauseByLink,
  "move-repeat-visit": moveRepeatVisit,
  "agree-repeat-date": agreeRepeatDate,
  "pause-repeat": pauseRepeat,
  "end-pause": endPause,
  "end-own-session": endOwnSession,
  "end-sessions": endSessions,
  "enter-code-by-link": enterCodeByLink,
  "forget-card": forgetCard,
  "give-back-room": giveBackRoom,
  "try-again": tryAgain,
  "settle-lost": settleLost,
  "send-now": sendNow,
  "take-as-yes": takeAsYes,
  "decide-charge": decideCharge,
  "hand-incoming": handIncoming,
  "hold-offer": holdOffer,
  "keep-apart": keepApart,
  "locate-request": locateRequest,
  "make-repeat": makeRepeat,
  "look-for-room": lookForRoom,
  "review-repeat-price": reviewRepeatPrice,
  "make-request": makeRequest,
  "merge-customers": mergeCustomers,
  "move-by-link": moveByLink,
  "go-again-by-link": goAgainByLink,
  "move-clock": moveClock,
  "ask-question": askQuestion,
  "match-thread": matchThread,
  "open-thread": openThread,
  "read-thread": readThread,
  "reset-template": resetTemplate,
  "save-language": saveLanguage,
  "save-message-rules": saveMessageRules,
  "save-stop": saveStop,
  "save-withheld": saveWithheld,
  "withhold-by-link": withholdByLink,
  "save-occasion": saveOccasion,
  "save-sender": saveSender,
  "save-template": saveTemplate,
  "send-test": sendTest,
  "stop-by-message": stopByMessage,
  "settle-thread": settleThread,
  "snooze-thread": snoozeThread,
  "take-thread": takeThread,
  "tell-late": tellLate,
  "write-by-hand": writeByHand,
  "write-note": writeNote,
  "move-visit": moveVisit,
  "order-services": orderServices,
  "take-payment": takePayment,
  "hand-over-cash": handOverCash,
  "copy-invoice-link": copyInvoiceLink,
  "save-account-numbers": saveAccountNumbers,
  "make-invoice": makeInvoice,
  "bill-customer": billCustomerByHand,
  ...promisingOperations,
  "rezone-sites": rezoneSites,
  "settle-unkept": settleUnkept,
  "pay-by-card": payByCard,
  "take-another-card": takeAnotherCard,
  "take-another-card-for": takeAnotherCardFor,
  "pay-invoice": payInvoice,
  "propose-window": proposeWindow,
  "put-away-quotes": putAwayQuotes,
  "record-errand": recordErrand,
  "record-payment": recordPayment,
  "credit-invoice": creditInvoiceByHand,
  "invoice-again": invoiceAgain,
  "charge-invoices": chargeInvoices,
  "pay-owed": payOwed,
  "write-off": writeOff,
  "undo-write-off": undoWriteOff,
  "refund-payment": refundPayment,
  "take-back-payment": takeBackPayment,
  "use-credit": useCredit,
  "record-time-off": recordTimeOff,
  "add-card": addCard,
  "charge-card-first": chargeFirst,
  "remove-card": removeCard,
  "remove-errand": removeErrand,
  "remove-source": removeSource,
  "remove-special-day": removeSpecialDay,
  "remove-time-off": removeTimeOff,
  "remove-view": removeView,
  "renew-link": renewLink,
  "repeat-by-link": repeatByLink,
  "consent-by-link": consentByLink,
  "resume-repeat": resumeRepeat,
  "save-booking-rules": saveBookingRules,
  "save-business": saveBusiness,
  "save-coupon": saveCoupon,
  "save-customer": saveCustomer,
  "save-directory": saveDirectory,
  "save-extra": saveExtra,
  "save-job-pattern": saveJobPattern,
  "save-front-door": saveFrontDoor,
  "save-person": savePerson,
  "save-security": saveSecurity,
  "save-site": saveSite,
  "save-view": saveView,
  "send-code-by-link": sendCodeByLink,
  "send-quote": sendQuote,
  "set-day-hours": setDayHours,
  "set-prices": setPrices,
  "set-technician-active": setTechnicianActive,
  "split-customers": splitCustomers,
  "stop-import": stopImport,
  "take-import": takeImport,
  "take-kit": takeKit,
  "take-on": takeOn,
  "take-wish": takeWish,
  "undo-import": undoImport,
  "withdraw-wish": withdrawWish,
  "answer-review": answerReview,
  "end-campaign": endCampaign,
  "give-points": givePoints,
  "go-to-review-place": goToReviewPlace,
  "open-offer": openOffer,
  "pause-campaign": pauseCampaign,
  "remove-campaign": removeCampaign,
  "reply-to-review": replyToReview,
  "run-campaign": runCampaign,
  "save-campaign": saveCampaign,
  "save-loyalty": saveLoyalty,
  "save-review-rules": saveReviewRules,
  "settle-review": settleReview,
  "take-offer": takeOffer,
} as const;

type Operations = typeof operations;
export type OperationName = keyof Operations;
export type OperationInput<N extends OperationName> = Static<Operations[N]["input"]>;
export type OperationOutput<N extends OperationName> = ReturnType<Operations[N]["run"]>;

/** An operation by its name as it came in, or null. */
export const operationNamed = (name: string): Operation | null =>
  Object.hasOwn(operations, name) ? (operations[name as OperationName] as unknown as Operation) : null;
