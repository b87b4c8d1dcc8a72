import type { Operation } from "./door";
import { keepApart, mergeCustomers, splitCustomers } from "./alike";
import { advanceVisit } from "./advance-visit";
import { book } from "./book";
import { bookInOffice } from "./book-in-office";
import {
  addByLink,
  answerByLink,
  cancelByLink,
  confirmByLink,
  consentByLink,
  moveByLink,
  repeatByLink,
} from "./by-link";
import { removeCard } from "./cards";
import { cancelVisit } from "./cancel-visit";
import { holdOffer } from "./hold-offer";
import { takeKit } from "./kits";
import { moveClock } from "./move-clock";
import { moveVisit } from "./move-visit";
import { payByCard } from "./pay-by-card";
import { endSessions, handIncoming, savePerson } from "./people";
import { acceptQuote, bookQuote, declineQuote, putAwayQuotes, sendQuote } from "./quotes";
import { answerRequests, bookRequest, locateRequest, makeRequest } from "./requests";
import { takeWish, withdrawWish } from "./wishes";
import { approveBookings, declineIncoming, proposeWindow, takeOn } from "./incoming";
import { recordPayment } from "./record-payment";
import { renewLink } from "./renew-link";
import { endRepeat, makeRepeat, resumeRepeat } from "./repeats";
import { recordErrand, recordTimeOff, removeErrand, removeTimeOff, setDayHours } from "./absences";
import { saveBookingRules } from "./setup/booking-rules";
import { removeSpecialDay, saveOpening, saveSpecialDay, takeSpecialDays } from "./setup/opening";
import { saveFrontDoor } from "./setup/save-front-door";
import { changePrices, setPrices } from "./setup/prices";
import { saveBusiness } from "./setup/save-business";
import { saveCoupon } from "./setup/save-coupon";
import { saveDirectory } from "./setup/save-directory";
import { saveExtra } from "./setup/save-extra";
import { duplicateService, orderServices, saveService } from "./setup/save-service";
import { saveTechnician, setTechnicianActive } from "./setup/save-technician";
import { addSource, removeSource } from "./setup/sources";
import { saveZone, setZoneAside, takeZones } from "./setup/save-zone";

/** The operations that can be called from outside, by name. What the system alone does is not among them. */
export const operations = {
  "accept-quote": acceptQuote,
  "add-by-link": addByLink,
  "add-source": addSource,
  "advance-visit": advanceVisit,
  "answer-by-link": answerByLink,
  "answer-requests": answerRequests,
  "approve-bookings": approveBookings,
  book: book,
  "book-in-office": bookInOffice,
  "book-quote": bookQuote,
  "book-request": bookRequest,
  "cancel-by-link": cancelByLink,
  "cancel-visit": cancelVisit,
  "change-prices": changePrices,
  "confirm-by-link": confirmByLink,
  "decline-incoming": declineIncoming,
  "decline-quote": declineQuote,
  "duplicate-service": duplicateService,
  "end-repeat": endRepeat,
  "end-sessions": endSessions,
  "hand-incoming": handIncoming,
  "hold-offer": holdOffer,
  "keep-apart": keepApart,
  "locate-request": locateRequest,
  "make-repeat": makeRepeat,
  "make-request": makeRequest,
  "merge-customers": mergeCustomers,
  "move-by-link": moveByLink,
  "move-clock": moveClock,
  "move-visit": moveVisit,
  "order-services": orderServices,
  "pay-by-card": payByCard,
  "propose-window": proposeWindow,
  "put-away-quotes": putAwayQuotes,
  "record-errand": recordErrand,
  "record-payment": recordPayment,
  "record-time-off": recordTimeOff,
  "remove-card": removeCard,
  "remove-errand": removeErrand,
  "remove-source": removeSource,
  "remove-special-day": removeSpecialDay,
  "remove-time-off": removeTimeOff,
  "renew-link": renewLink,
  "repeat-by-link": repeatByLink,
  "consent-by-link": consentByLink,
  "resume-repeat": resumeRepeat,
  "save-booking-rules": saveBookingRules,
  "save-business": saveBusiness,
  "save-coupon": saveCoupon,
  "save-directory": saveDirectory,
  "save-extra": saveExtra,
  "save-front-door": saveFrontDoor,
  "save-opening": saveOpening,
  "save-person": savePerson,
  "save-service": saveService,
  "save-special-day": saveSpecialDay,
  "save-technician": saveTechnician,
  "save-zone": saveZone,
  "send-quote": sendQuote,
  "set-day-hours": setDayHours,
  "set-prices": setPrices,
  "set-technician-active": setTechnicianActive,
  "set-zone-aside": setZoneAside,
  "split-customers": splitCustomers,
  "take-kit": takeKit,
  "take-on": takeOn,
  "take-special-days": takeSpecialDays,
  "take-wish": takeWish,
  "take-zones": takeZones,
  "withdraw-wish": withdrawWish,
} as const;

export type Operations = typeof operations;
export type OperationName = keyof Operations;

/** An operation by its name as it came in, or null. */
export const operationNamed = (name: string): Operation | null =>
  Object.hasOwn(operations, name) ? (operations[name as OperationName] as unknown as Operation) : null;
