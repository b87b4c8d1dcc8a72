import type { Module } from "@/kernel/module";
import { placeModule } from "@/modules/place";
import { peopleModule } from "@/modules/people";
import { businessModule } from "@/modules/business";
import { picturesModule } from "@/modules/pictures";
import { catalogueModule } from "@/modules/catalogue";
import { customersModule } from "@/modules/customers";
import { jobsModule } from "@/modules/jobs";
import { messagesModule } from "@/modules/messages";
import { samePersonModule } from "@/modules/same-person";
import { placingModule } from "@/modules/placing";
import { moneyModule } from "@/modules/money";
// What is due comes in by itself: the books know nothing of it.
import { collectionModule } from "@/modules/collection";
import { bookingModule } from "@/modules/booking";
// What is done may come back: a visit knows repeats, not the other way round.
import { repeatsModule } from "@/modules/repeats";
// Repeats are imported too.
import { importsModule } from "@/modules/imports";
import { visitsModule } from "@/modules/visits";
import { teamModule } from "@/modules/team";
import { setupModule } from "@/modules/setup";
import { requestsModule } from "@/modules/requests";
import { myVisitModule } from "@/modules/my-visit";
import { frontDoorModule } from "@/modules/front-door";
import { quotesModule } from "@/modules/quotes";
// What brings customers back knows how they book; nothing that books knows campaigns or reviews.
import { campaignsModule } from "@/modules/campaigns";
import { reviewsModule } from "@/modules/reviews";
import { incomingModule } from "@/modules/incoming";
import { dueModule } from "@/modules/due";
import { todayModule } from "@/modules/today";
import { recordsModule } from "@/modules/records";

/** The subjects, lowest first: each knows only those before it. A new one is a folder of its own, and one line here. */
const subjects = [
  placeModule,
  peopleModule,
  businessModule,
  picturesModule,
  catalogueModule,
  customersModule,
  jobsModule,
  messagesModule,
  samePersonModule,
  placingModule,
  moneyModule,
  collectionModule,
  bookingModule,
  repeatsModule,
  importsModule,
  visitsModule,
  teamModule,
  setupModule,
  requestsModule,
  myVisitModule,
  frontDoorModule,
  quotesModule,
  campaignsModule,
  reviewsModule,
  incomingModule,
  dueModule,
] as const;

const exact = [...subjects, todayModule(subjects), recordsModule] as const;
/** The same, for whoever loops over them. */
export const modules: readonly Module[] = exact;

/** All of a union at once. */
type Both<U> = (U extends unknown ? (one: U) => void : never) extends (all: infer All) => void ? All : never;
type Of<Part extends "operations" | "views"> = Both<
  (typeof exact)[number] extends infer M ? (M extends Record<Part, infer Named> ? Named : never) : never
>;

/** What modules define under names, all together. */
const together = <Part extends "operations" | "views">(part: Part): Of<Part> =>
  Object.assign({}, ...modules.map((module) => module[part])) as Of<Part>;

export const ownOperations = together("operations");
export const ownViews = together("views");
