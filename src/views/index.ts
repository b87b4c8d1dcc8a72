import type { View } from "./view";
import { board, dayStrip, placementOptions, visitSheet } from "./board";
import { alike, customer, customers, find, repeats } from "./customers";
import { fieldDay } from "./field";
import { firstSteps } from "./first-steps";
import {
  checkBooker,
  checkCoupon,
  findAddress,
  frontDoor,
  offers,
  previewFrontDoor,
  servicesAt,
  typeAddress,
} from "./front-door";
import { incoming, incomingEntry } from "./incoming";
import { invoice, money } from "./money";
import { myCalendar, myOffers, myVisit } from "./my-visit";
import { setup } from "./setup";
import { priceHistory } from "./price-history";
import { previewWindows } from "./preview-windows";
import { whichZone, zoneMap } from "./zone-map";
import { quote, quoteDraft, quoteOffers } from "./quotes";
import { sharing } from "./sharing";
import { todayView } from "./today";
import { wish } from "./wish";
import { whyNot, whyNotChoices } from "./why-not";

/** The views that can be asked for from outside, by name. */
export const views = {
  alike: alike,
  board: board,
  "check-booker": checkBooker,
  "check-coupon": checkCoupon,
  customer: customer,
  customers: customers,
  "day-strip": dayStrip,
  "field-day": fieldDay,
  find: find,
  "find-address": findAddress,
  "first-steps": firstSteps,
  "front-door": frontDoor,
  incoming: incoming,
  "incoming-entry": incomingEntry,
  invoice: invoice,
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
  repeats: repeats,
  "services-at": servicesAt,
  setup: setup,
  sharing: sharing,
  today: todayView,
  "type-address": typeAddress,
  "visit-sheet": visitSheet,
  "which-zone": whichZone,
  "why-not": whyNot,
  "why-not-choices": whyNotChoices,
  wish: wish,
  "zone-map": zoneMap,
} as const;

export type Views = typeof views;
export type ViewName = keyof Views;

/** A view by its name as it came in, or null. */
export const viewNamed = (name: string): View | null =>
  Object.hasOwn(views, name) ? (views[name as ViewName] as unknown as View) : null;
