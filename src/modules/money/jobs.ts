import { perform } from "@/kernel/operation";
import { type PieceByPiece, workThrough } from "@/kernel/piece-by-piece";
import { minuteMs, rowsAbout, type ScheduledJob, seenByWorker, wordsAbout, worker } from "@/kernel/scheduled";
import { customersToBill } from "./billing";
import { expiringCards } from "./cards";
import { lookAtSecondSteps, takeDownPayouts } from "./effects";
import { lateInvoices } from "./late-fees";
import { billByItself } from "./operations/billing";
import { tellExpiry } from "./operations/cards";
import { askLateFee } from "./operations/late-fees";
import { remindOfInvoice } from "./operations/remind-of-invoice";
import { invoicesToRemind } from "@/modules/messages/reminders";

const bill: PieceByPiece = {
  job: "bill",
  stateOf: rowsAbout("SELECT * FROM customers WHERE id = @id"),
  wordsOf: wordsAbout("SELECT 'The bill of ' || name AS words FROM customers WHERE id = @id"),
  work: (hogar, customerId) => perform(hogar, billByItself, { customerId }, worker),
};
const lateFee: PieceByPiece = {
  job: "late fee",
  stateOf: rowsAbout(
    "SELECT i.late_fee_on, c.* FROM invoices i JOIN customers c ON c.id = i.customer_id WHERE i.id = @id",
  ),
  wordsOf: wordsAbout("SELECT 'The late fee of invoice ' || label AS words FROM invoices WHERE id = @id"),
  work: (hogar, invoiceId) => perform(hogar, askLateFee, { invoiceId }, worker),
};
const cardExpiry: PieceByPiece = {
  job: "card expiry",
  stateOf: rowsAbout("SELECT expires, removed_at, expiry_told FROM cards WHERE id = @id"),
  wordsOf: wordsAbout(
    "SELECT 'The notice that a card of ' || c.name || ' expires' AS words FROM cards k JOIN customers c ON c.id = k.customer_id WHERE k.id = @id",
  ),
  work: (hogar, cardId) => perform(hogar, tellExpiry, { cardId }, worker),
};
const invoiceReminder: PieceByPiece = {
  job: "invoice reminder",
  stateOf: rowsAbout(
    "SELECT i.due_date, c.* FROM invoices i JOIN customers c ON c.id = i.customer_id WHERE i.id = @id",
  ),
  wordsOf: wordsAbout("SELECT 'The reminder of invoice ' || label AS words FROM invoices WHERE id = @id"),
  work: (hogar, invoiceId) => perform(hogar, remindOfInvoice, { invoiceId }, worker),
};

export const moneyJobs: readonly ScheduledJob[] = [
  {
    name: "reminders of invoices",
    order: 80,
    everyMs: 0,
    run: (hogar, until) => workThrough(hogar, invoiceReminder, invoicesToRemind(seenByWorker(hogar)), until),
  },
  {
    name: "bills",
    order: 110,
    everyMs: 10 * minuteMs,
    run: (hogar, until) => workThrough(hogar, bill, customersToBill(seenByWorker(hogar)), until),
  },
  {
    name: "late fees",
    order: 120,
    everyMs: 10 * minuteMs,
    run: (hogar, until) => workThrough(hogar, lateFee, lateInvoices(seenByWorker(hogar)), until),
  },
  {
    name: "cards that expire",
    order: 160,
    everyMs: 60 * minuteMs,
    run: (hogar, until) => workThrough(hogar, cardExpiry, expiringCards(seenByWorker(hogar)), until),
  },
  {
    name: "second steps",
    order: 180,
    everyMs: 10 * minuteMs,
    run: async (hogar) => {
      await lookAtSecondSteps(hogar);
      return null;
    },
  },
  {
    name: "payouts",
    order: 190,
    everyMs: 60 * minuteMs,
    run: async (hogar) => {
      await takeDownPayouts(hogar);
      return null;
    },
  },
];
