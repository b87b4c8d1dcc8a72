import { distance } from "fastest-levenshtein";
import { nameWords, sameName } from "../people/matching";
import { daysBetween, type LocalDate } from "../time/dates";
import { type Minor, sum } from "./amounts";
import { giveTo } from "./applying";

/** A line of a bank's statement. Below nothing: it went out. */
export interface BankLine {
  date: LocalDate;
  amountMinor: Minor;
  name: string;
  words: string;
}

export interface OpenInvoice {
  id: number;
  label: string;
  customerId: number;
  /** Names under which they may pay: their own, and whoever gets their bills. */
  names: readonly string[];
  openMinor: Minor;
  due: LocalDate;
  /** It was given up: it is meant only where its number is named. */
  givenUp?: boolean;
}

/** What is expected at the bank or was taken down by hand: a payout, a transfer, a refund. Amounts as they stand on a statement. */
interface Expected {
  id: number;
  amountMinor: Minor;
  /** Since when it is expected. */
  from: LocalDate;
  reference: string;
  names: readonly string[];
}

/** What a line may be held against. */
export interface OpenBooks {
  invoices: readonly OpenInvoice[];
  payouts: readonly Expected[];
  /** Transfers and cheques that were recorded by hand and stand on no line yet. */
  recorded: readonly Expected[];
  /** Refunds that were handed back by bank and stand on no line yet. */
  refunds: readonly Expected[];
  /** Payments that came by bank and may be taken back by it; amounts below nothing. */
  returnable: readonly Expected[];
}

/** What a line is: money for invoices of one customer, or something that the books know already. */
export type Match =
  | { kind: "invoices"; customerId: number; invoices: { invoiceId: number; amountMinor: Minor }[] }
  | { kind: "payout" | "recorded" | "refund" | "returned"; id: number };

/** `sure` where the number and the amount agree; `likely` where two of number, amount and name do; `possible` where one does. */
export interface Proposal {
  match: Match;
  sure: "sure" | "likely" | "possible";
  why: (
    | "number"
    | "number with an error"
    | "amount"
    | "name"
    | "day"
    | "all that is open"
    | "a part"
    | "more than is open"
    | "a few cents apart"
    | "given up before"
  )[];
}

const rank = { sure: 0, likely: 1, possible: 2 };
/** As many are proposed at most; invoices of the same sum are all among them. */
const most = 24;

/** Answers what a line may be, what is surest first; the same match is proposed once, and what is merely possible only where nothing better is. What is open is put in order once, for many lines. */
export function bankMatcher(books: OpenBooks): (line: BankLine) => Proposal[] {
  const forInvoices = invoiceMatcher(books.invoices);
  return (line) => {
    const found =
      line.amountMinor > 0
        ? [
            ...expected("payout", line, books.payouts),
            ...expected("recorded", line, books.recorded),
            ...forInvoices(line),
          ]
        : [...expected("refund", line, books.refunds), ...expected("returned", line, books.returnable)];
    const seen = new Set<string>();
    const isClear = found.some(({ sure }) => sure !== "possible");
    return found
      .filter(({ sure }) => !isClear || sure !== "possible")
      .sort((a, b) => rank[a.sure] - rank[b.sure])
      .filter(({ match }) => {
        const key = JSON.stringify(match);
        return !seen.has(key) && seen.add(key);
      })
      .slice(0, most);
  };
}

/** Days within which a payout comes after it was sent, what was taken down by hand before or after it, and a payment goes back. */
const [payoutDays, recordedDays, returnDays] = [10, 30, 70];
/** A payout that comes with so little more or less is meant all the same: a bank's charge, a rate of exchange. */
export const mostApart = (amountMinor: Minor): Minor => Math.max(100, Math.round(amountMinor / 100));

/** What is expected comes to the cent, save a payout, which may be a little apart. */
function expected(
  kind: "payout" | "recorded" | "refund" | "returned",
  line: BankLine,
  all: readonly Expected[],
): Proposal[] {
  const within = {
    payout: [0, payoutDays],
    recorded: [-recordedDays, recordedDays],
    refund: [-recordedDays, recordedDays],
    returned: [0, returnDays],
  } as const;
  const off = ({ amountMinor }: Expected): Minor => Math.abs(amountMinor - line.amountMinor);
  return all
    .filter((one) => off(one) <= (kind === "payout" ? mostApart(one.amountMinor) : 0))
    .flatMap((one): Proposal[] => {
      const { id, reference, from, names } = one;
      const match = { kind, id };
      const apart = daysBetween(from, line.date);
      const near = apart >= within[kind][0] && apart <= within[kind][1];
      if (off(one) > 0)
        return near || (reference && plain(line.words).includes(plain(reference)))
          ? [{ match, sure: "possible", why: ["a few cents apart", ...(near ? (["day"] as const) : [])] }]
          : [];
      if (reference && plain(line.words).includes(plain(reference)))
        return [{ match, sure: "sure", why: ["number", "amount"] }];
      if (near && names.some((name) => sameName(name, line.name)))
        return [{ match, sure: "likely", why: ["name", "amount"] }];
      return near ? [{ match, sure: kind === "payout" ? "likely" : "possible", why: ["amount", "day"] }] : [];
    });
}

function invoiceMatcher(invoices: readonly OpenInvoice[]): (line: BankLine) => Proposal[] {
  const numbered = invoices.map((invoice) => ({ invoice, number: plain(invoice.label) }));
  const expectedOnes = invoices.filter(({ givenUp }) => !givenUp);
  const ofAmount = groupBy(expectedOnes, ({ openMinor }) => [openMinor]);
  const ofWord = groupBy(expectedOnes, ({ names }) => new Set(names.flatMap(nameWords)));
  return (line) => {
    const amount = line.amountMinor;
    const said = plain(line.words);
    const isTheirs = ({ names }: OpenInvoice) => names.some((name) => sameName(name, line.name));
    const paysAll = (some: readonly OpenInvoice[]) => sum(some.map(({ openMinor }) => openMinor)) === amount;

    const named = withoutInner(numbered.filter(({ number }) => said.includes(number)));
    const byNumber = byCustomer(named).map((theirs): Proposal => {
      if (theirs.some(({ givenUp }) => givenUp))
        return { match: pays(theirs, amount), sure: "likely", why: ["number", "given up before"] };
      if (paysAll(theirs)) return { match: pays(theirs, amount), sure: "sure", why: ["number", "amount"] };
      const isPart = amount < sum(theirs.map(({ openMinor }) => openMinor));
      return { match: pays(theirs, amount), sure: "likely", why: ["number", isPart ? "a part" : "more than is open"] };
    });

    const numbers = line.words
      .split(/[\s,;:]+/)
      .map(plain)
      .filter((word) => word.length >= 4);
    const byAmount = (ofAmount.get(amount) ?? [])
      .filter((invoice) => !named.includes(invoice))
      .map((invoice): Proposal => {
        const match = pays([invoice], amount);
        const theirs = isTheirs(invoice);
        if (numbers.some((number) => isNear(number, plain(invoice.label))))
          return theirs
            ? { match, sure: "sure", why: ["number with an error", "amount", "name"] }
            : { match, sure: "likely", why: ["number with an error", "amount"] };
        return theirs
          ? { match, sure: "likely", why: ["name", "amount"] }
          : { match, sure: "possible", why: ["amount"] };
      });

    const alike = [...new Set(nameWords(line.name).flatMap((word) => ofWord.get(word) ?? []))].filter(isTheirs);
    const byName = (named.length ? [] : byCustomer(alike)).map((theirs): Proposal => {
      if (theirs.length > 1 && paysAll(theirs))
        return { match: pays(theirs, amount), sure: "likely", why: ["name", "all that is open"] };
      const some = someThatSum(theirs, amount);
      return some
        ? { match: pays(some, amount), sure: "likely", why: ["name", "amount"] }
        : { match: pays(theirs, amount), sure: "possible", why: ["name"] };
    });
    return [...byNumber, ...byAmount, ...byName];
  };
}

function groupBy<K>(
  invoices: readonly OpenInvoice[],
  keysOf: (invoice: OpenInvoice) => Iterable<K>,
): Map<K, OpenInvoice[]> {
  const groups = new Map<K, OpenInvoice[]>();
  for (const invoice of invoices)
    for (const key of keysOf(invoice)) {
      const group = groups.get(key);
      if (group) group.push(invoice);
      else groups.set(key, [invoice]);
    }
  return groups;
}

const byCustomer = (invoices: readonly OpenInvoice[]): OpenInvoice[][] => [
  ...groupBy(invoices, ({ customerId }) => [customerId]).values(),
];

/** What is due first is paid first; what is left over stays with the customer as credit. */
function pays(invoices: readonly OpenInvoice[], amountMinor: Minor): Match {
  const inOrder = [...invoices].sort((a, b) => (a.due < b.due ? -1 : a.due > b.due ? 1 : a.id - b.id));
  return {
    kind: "invoices",
    customerId: invoices[0]!.customerId,
    invoices: giveTo(amountMinor, inOrder).map(({ invoice, amountMinor }) => ({ invoiceId: invoice.id, amountMinor })),
  };
}

/** So many invoices of one customer are put together in every way, to find those that come to an amount. */
const mostPutTogether = 12;

function someThatSum(invoices: readonly OpenInvoice[], amountMinor: Minor): OpenInvoice[] | null {
  const tried = invoices.slice(0, mostPutTogether);
  const from = (at: number, left: Minor): OpenInvoice[] | null => {
    if (left === 0) return [];
    const one = tried[at];
    if (!one || left < 0) return null;
    const rest = from(at + 1, left - one.openMinor);
    return rest ? [one, ...rest] : from(at + 1, left);
  };
  return from(0, amountMinor);
}

/** A number that stands within a longer one that was named is not meant: 2026-1 within 2026-12. */
const withoutInner = (named: readonly { invoice: OpenInvoice; number: string }[]): OpenInvoice[] =>
  named
    .filter(({ number }) => !named.some((other) => other.number !== number && other.number.includes(number)))
    .map(({ invoice }) => invoice);

const plain = (words: string): string => words.toUpperCase().replace(/[^\p{L}\p{N}]/gu, "");

/** One letter wrong, missing or too many, or two that changed places. */
const isNear = (one: string, other: string): boolean =>
  one !== other &&
  Math.abs(one.length - other.length) <= 1 &&
  (distance(one, other) === 1 ||
    (one.length === other.length &&
      distance(one, other) === 2 &&
      [...one].sort().join("") === [...other].sort().join("")));
