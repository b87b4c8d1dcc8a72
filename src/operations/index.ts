import type { Operation } from "./door";
import { advanceVisit } from "./advance-visit";
import { book } from "./book";
import { bookInOffice } from "./book-in-office";
import { cancelVisit } from "./cancel-visit";
import { holdOffer } from "./hold-offer";
import { takeKit } from "./kits";
import { moveClock } from "./move-clock";
import { moveVisit } from "./move-visit";
import { payByCard } from "./pay-by-card";
import { endSessions, savePerson } from "./people";
import { recordPayment } from "./record-payment";
import { renewLink } from "./renew-link";
import { endRepeat, makeRepeat, resumeRepeat } from "./repeats";
import { recordErrand, recordTimeOff, removeErrand, removeTimeOff, setDayHours } from "./absences";
import { changePrices, closeDay, saveBookingRules, saveBusiness, saveExtra, saveService, saveTechnician, saveZone, setPrices } from "./setup";

/** The operations that can be called from outside, by name. What the system alone does is not among them. */
export const operations = {
  "advance-visit": advanceVisit,
  "book": book,
  "book-in-office": bookInOffice,
  "cancel-visit": cancelVisit,
  "change-prices": changePrices,
  "close-day": closeDay,
  "end-repeat": endRepeat,
  "end-sessions": endSessions,
  "hold-offer": holdOffer,
  "make-repeat": makeRepeat,
  "move-clock": moveClock,
  "move-visit": moveVisit,
  "pay-by-card": payByCard,
  "record-errand": recordErrand,
  "record-payment": recordPayment,
  "record-time-off": recordTimeOff,
  "remove-errand": removeErrand,
  "remove-time-off": removeTimeOff,
  "renew-link": renewLink,
  "resume-repeat": resumeRepeat,
  "save-booking-rules": saveBookingRules,
  "save-business": saveBusiness,
  "save-extra": saveExtra,
  "save-person": savePerson,
  "save-service": saveService,
  "save-technician": saveTechnician,
  "save-zone": saveZone,
  "set-day-hours": setDayHours,
  "set-prices": setPrices,
  "take-kit": takeKit,
} as const;

export type Operations = typeof operations;
export type OperationName = keyof Operations;

/** An operation by its name as it came in, or null. */
export const operationNamed = (name: string): Operation | null => (Object.hasOwn(operations, name) ? (operations[name as OperationName] as unknown as Operation) : null);
