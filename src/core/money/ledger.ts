import { type Minor, type PricedLine, sum, totalOf } from "./amounts";

/**
 * The double-entry ledger. Each thing that happens with money is one event, whose entries add up to nothing; debits are
 * positive, credits negative. Every figure is a sum of entries.
 *
 * | account | holds |
 * |---|---|
 * | receivable | what customers owe on invoices |
 * | deposits | what was paid ahead for work that is not invoiced yet: owed to the customer until it is earned |
 * | credit | what customers have with us beside that: overpaid, or paid on account |
 * | refunds | what goes back and has not arrived |
 * | card, bank, cash | where money is: with the card service, in the bank, in the till |
 * | cash out | cash and cheques that technicians have taken and not handed over |
 * | sales, tax | what was earned, and what is owed of it to the state, by rate |
 * | tips | what customers gave for whoever came: owed to the technician |
 * | write-offs | what was given up |
 * | gateway fees | what the card service keeps for itself |
 * | on the way | what the card service has paid out and the bank has not received |
 * | disputed | what the card service holds back while a customer's bank asks for it |
 * | cash differences | what was counted too little or too much when technicians handed over |
 * | own | what the bank says beside payments, each on an account of the owner's own |
 */
export const accounts = [
  "receivable",
  "deposits",
  "credit",
  "refunds",
  "card",
  "bank",
  "cash",
  "cash out",
  "sales",
  "tax",
  "tips",
  "write-offs",
  "gateway fees",
  "on the way",
  "disputed",
  "cash differences",
  "own",
] as const;
export type Account = (typeof accounts)[number];

export interface Entry {
  account: Account;
  amountMinor: Minor;
  invoiceId?: number;
  paymentId?: number;
  noteId?: number;
  taxBp?: number;
  technicianId?: number;
  ownAccountId?: number;
}

export type Method = "card" | "cash" | "bank" | "cheque";

/** Where the money of a payment lies when it has come: a cheque is as good as in the bank; what was taken on the road is in a technician's hands. */
const placeOf = (method: Method, technicianId: number | null): Pick<Entry, "account" | "technicianId"> =>
  (method === "cash" || method === "cheque") && technicianId !== null
    ? { account: "cash out", technicianId }
    : { account: method === "cheque" ? "bank" : method };

/** What is left of a payment, and where it stands. */
export interface Source {
  paymentId: number;
  from: "deposits" | "credit";
}

type TaxedLine = Pick<PricedLine, "amountMinor" | "taxMinor" | "taxBp">;

/** Sales and tax by rate, of lines; `side` -1 where they are earned, 1 where they are taken back. */
const earned = (lines: readonly TaxedLine[], side: 1 | -1): Entry[] =>
  totalOf(lines).taxes.flatMap(({ taxBp, taxMinor, amountMinor }) => [
    { account: "sales" as const, amountMinor: side * (amountMinor - taxMinor), taxBp },
    { account: "tax" as const, amountMinor: side * taxMinor, taxBp },
  ]);

/** An invoice: the customer owes it; it is earned, and part of it is the state's. */
export const invoiceIssued = (invoiceId: number, lines: readonly TaxedLine[]): Entry[] =>
  balanced([
    { account: "receivable", amountMinor: totalOf(lines).totalMinor, invoiceId },
    ...earned(lines, -1).map((entry) => ({ ...entry, invoiceId })),
  ]);

/** A credit note: what it takes back is neither earned nor owed. What had paid that part was released before. */
export const invoiceCredited = (noteId: number, invoiceId: number, lines: readonly TaxedLine[]): Entry[] =>
  balanced([
    ...earned(lines, 1).map((entry) => ({ ...entry, invoiceId, noteId })),
    { account: "receivable", amountMinor: -totalOf(lines).totalMinor, invoiceId, noteId },
  ]);

/** Money has come: it is the customer's until an invoice takes it; a tip that came with it is the technician's. */
export const paymentReceived = ({
  id: paymentId,
  method,
  amountMinor,
  into,
  technicianId,
  tip,
}: {
  id: number;
  method: Method;
  amountMinor: Minor;
  into: "deposits" | "credit";
  /** Who has the money in their hands. */
  technicianId: number | null;
  tip?: { minor: Minor; technicianId: number | null };
}): Entry[] =>
  balanced([
    { ...placeOf(method, technicianId), amountMinor: amountMinor + (tip?.minor ?? 0), paymentId },
    { account: into, amountMinor: -amountMinor, paymentId },
    {
      account: "tips",
      amountMinor: 0 - (tip?.minor ?? 0),
      paymentId,
      ...(tip?.technicianId != null && { technicianId: tip.technicianId }),
    },
  ]);

/** What is left of a payment pays an invoice. */
export const allocated = ({ paymentId, from }: Source, invoiceId: number, amountMinor: Minor): Entry[] =>
  balanced([
    { account: from, amountMinor, paymentId },
    { account: "receivable", amountMinor: -amountMinor, invoiceId, paymentId },
  ]);

/** What has paid an invoice is the customer's again: the invoice is to be credited, or the payment was none. */
export const released = (source: Source, invoiceId: number, amountMinor: Minor): Entry[] =>
  reversed(allocated(source, invoiceId, amountMinor));

/** Money is to go back: it is the customer's no more, and has not arrived yet. */
export const refundAsked = ({ paymentId, from }: Source, amountMinor: Minor): Entry[] =>
  balanced([
    { account: from, amountMinor, paymentId },
    { account: "refunds", amountMinor: -amountMinor, paymentId },
  ]);

/** It has gone out to where it came from, or was handed back. */
export const refundSent = (paymentId: number, method: Method, amountMinor: Minor): Entry[] =>
  balanced([
    { account: "refunds", amountMinor, paymentId },
    { ...placeOf(method, null), amountMinor: -amountMinor, paymentId },
  ]);

/** What is open on an invoice is given up. Tax that was owed for it stays owed. */
export const writtenOff = (invoiceId: number, amountMinor: Minor): Entry[] =>
  balanced([
    { account: "write-offs", amountMinor, invoiceId },
    { account: "receivable", amountMinor: -amountMinor, invoiceId },
  ]);

/** What a technician has taken is counted: cash lies in the till, cheques are as good as in the bank. `differenceMinor`: what was counted beyond (below) what should be there. */
export const cashHandedOver = (
  technicianId: number,
  payments: readonly { id: number; method: Method; amountMinor: Minor }[],
  differenceMinor: Minor,
): Entry[] =>
  balanced([
    ...payments.flatMap(({ id: paymentId, method, amountMinor }) => [
      { ...placeOf(method, null), amountMinor, paymentId },
      { account: "cash out" as const, amountMinor: -amountMinor, technicianId, paymentId },
    ]),
    { account: "cash", amountMinor: differenceMinor },
    { account: "cash differences", amountMinor: 0 - differenceMinor, technicianId },
  ]);

/** A line of the bank that is no payment: its sum is on an account of the owner's own. */
export const postedToOwn = (ownAccountId: number, amountMinor: Minor): Entry[] =>
  balanced([
    { account: "bank", amountMinor },
    { account: "own", amountMinor: -amountMinor, ownAccountId },
  ]);

/** What the bank's line of a payout has beyond (below) what was announced: the card service kept less, or more. */
export const payoutDiffers = (amountMinor: Minor): Entry[] =>
  balanced([
    { account: "bank", amountMinor },
    { account: "gateway fees", amountMinor: -amountMinor },
  ]);

/** A technician is given the tips that came for them. */
export const tipsPaidOut = (technicianId: number | null, method: "cash" | "bank", amountMinor: Minor): Entry[] =>
  balanced([
    { account: "tips", amountMinor, ...(technicianId !== null && { technicianId }) },
    { account: method, amountMinor: -amountMinor },
  ]);

/** The card service keeps a fee of a charge. */
export const gatewayFeeKept = (paymentId: number | null, feeMinor: Minor): Entry[] => {
  const of = paymentId === null ? {} : { paymentId };
  return balanced([
    { account: "gateway fees", amountMinor: feeMinor, ...of },
    { account: "card", amountMinor: -feeMinor, ...of },
  ]);
};

/** The card service pays out what it holds of ours; what it keeps for paying out at once is a fee. */
export const payoutSent = (amountMinor: Minor, feeMinor: Minor): Entry[] =>
  balanced([
    { account: "on the way", amountMinor },
    { account: "gateway fees", amountMinor: feeMinor },
    { account: "card", amountMinor: -(amountMinor + feeMinor) },
  ]);

/** A payout is in the bank. */
export const payoutArrived = (amountMinor: Minor): Entry[] =>
  balanced([
    { account: "bank", amountMinor },
    { account: "on the way", amountMinor: -amountMinor },
  ]);

/** A customer's bank asks a payment back: the card service holds it until that is decided. */
export const disputeOpened = (paymentId: number, amountMinor: Minor): Entry[] =>
  balanced([
    { account: "disputed", amountMinor, paymentId },
    { account: "card", amountMinor: -amountMinor, paymentId },
  ]);

/** Decided for us: it is with the card service again. */
export const disputeWon = (paymentId: number, amountMinor: Minor): Entry[] =>
  reversed(disputeOpened(paymentId, amountMinor));

/** Decided for the customer: what they had paid is theirs again. What it had paid was released before. */
export const disputeLost = ({ paymentId, from }: Source, amountMinor: Minor): Entry[] =>
  balanced([
    { account: from, amountMinor, paymentId },
    { account: "disputed", amountMinor: -amountMinor, paymentId },
  ]);

/** An event that was wrong is taken back by its opposite; both stay. */
export const reversed = (entries: readonly Entry[]): Entry[] =>
  balanced(entries.map((entry) => ({ ...entry, amountMinor: 0 - entry.amountMinor })));

function balanced(entries: Entry[]): Entry[] {
  if (sum(entries.map((e) => e.amountMinor)) !== 0)
    throw new RangeError("The entries of an event must add up to nothing");
  return entries.filter((e) => e.amountMinor !== 0);
}
