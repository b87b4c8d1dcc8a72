import type { StatementBalances } from "./statement-balances";
import { XMLParser } from "fast-xml-parser";
const bankColumns = ["Date", "Amount", "Currency", "Name", "Words", "Bank reference"];

/** Whether a text is a statement by ISO 20022, CAMT.053 (of whatever version). */
export const isCamt = (text: string): boolean => text.slice(0, 2000).includes("camt.053");

/**
 * Booked entries of a CAMT.053 statement (ISO 20022, BankToCustomerStatement), a row each; an entry that is a batch of
 * transactions with amounts of their own gives a row for each of them. Amounts are signed by CdtDbtInd. Null where it
 * cannot be read. Entries that are not booked yet (Sts PDNG, INFO) are left: they come again when they are.
 */
export function readCamt(
  text: string,
): { columns: string[]; rows: string[][]; says: string[]; balances: StatementBalances | null } | null {
  const isMany = (name: string) => ["Stmt", "Bal", "Ntry", "NtryDtls", "TxDtls", "Ustrd", "Strd"].includes(name);
  const parser = new XMLParser({
    removeNSPrefix: true,
    ignoreAttributes: false,
    parseTagValue: false,
    isArray: isMany,
  });
  let document: Node;
  try {
    document = parser.parse(text, true) as Node;
  } catch {
    return null;
  }
  const statements = within(document, "Document", "BkToCstmrStmt")?.Stmt as Node[] | undefined;
  if (!statements) return null;
  return {
    columns: bankColumns,
    rows: statements.flatMap((statement) => nodes(statement, "Ntry").flatMap(rowsOfEntry)),
    says: balancesSay(statements),
    balances: balancesOf(statements),
  };
}

/** Where the balances of statements disagree with their lines, or one statement does not go on where the one before has ended. */
function balancesSay(statements: readonly Node[]): string[] {
  const says: string[] = [];
  let before: { closing: number; date: string } | null = null;
  for (const statement of statements) {
    const opening = balanceOf(statement, ["OPBD", "PRCD"]);
    const closing = balanceOf(statement, ["CLBD"]);
    if (before && opening && opening.cents !== before.closing)
      says.push(
        `A statement is missing: the one of ${opening.date} opens with ${decimal(opening.cents)}, and the one before has closed with ${decimal(before.closing)}.`,
      );
    if (opening && closing) {
      const lines = nodes(statement, "Ntry").filter(isBooked);
      const sum = lines.reduce((total, entry) => total + signedCents(entry), 0);
      if (opening.cents + sum !== closing.cents)
        says.push(
          `The statement of ${closing.date} does not add up: from ${decimal(opening.cents)} to ${decimal(closing.cents)} by lines of ${decimal(sum)} in all. Lines may be missing.`,
        );
    }
    before = closing && { closing: closing.cents, date: closing.date };
  }
  return says;
}

/** With what the first of some statements opens and the last closes, where both are of one account and say so. */
function balancesOf(statements: readonly Node[]): StatementBalances | null {
  const [first, last] = [statements[0], statements.at(-1)];
  const opening = first && balanceOf(first, ["OPBD", "PRCD"]);
  const closing = last && balanceOf(last, ["CLBD"]);
  const accounts = new Set(statements.map((one) => words(within(one, "Acct", "Id")?.IBAN)));
  return opening && closing && accounts.size === 1 ? { account: [...accounts][0]!, opening, closing } : null;
}

function balanceOf(statement: Node, codes: readonly string[]): { cents: number; date: string } | null {
  for (const balance of nodes(statement, "Bal"))
    if (codes.includes(words(within(balance, "Tp", "CdOrPrtry")?.Cd)))
      return { cents: signedCents(balance), date: dayOf(within(balance, "Dt")) };
  return null;
}

/** Hundredths of the currency's unit, whichever it is: they are only compared with each other. */
const signedCents = (node: Node): number =>
  Math.round(Number(amountOf(node)?.value ?? 0) * 100) * (words(node.CdtDbtInd) === "DBIT" ? -1 : 1);
const decimal = (cents: number): string => (cents / 100).toFixed(2);

interface Node {
  [name: string]: unknown;
}

function rowsOfEntry(entry: Node): string[][] {
  if (!isBooked(entry)) return [];
  const date = dayOf(within(entry, "BookgDt")) || dayOf(within(entry, "ValDt"));
  const ownReference = words(entry.AcctSvcrRef) || words(entry.NtryRef);
  const parts = nodes(entry, "NtryDtls").flatMap((details) => nodes(details, "TxDtls"));
  const isBatch = parts.length > 1 && parts.every((part) => amountOf(part) !== null);
  if (!isBatch)
    return [
      rowOf(
        date,
        entry,
        amountOf(entry),
        parts[0] ?? entry,
        ownReference || words(within(parts[0], "Refs")?.AcctSvcrRef),
      ),
    ];
  const transactions = parts.map((part, i) =>
    // A transaction has a direction of its own where the bank says one; else it is that of the entry.
    rowOf(
      date,
      part.CdtDbtInd ? part : entry,
      amountOf(part),
      part,
      words(within(part, "Refs")?.AcctSvcrRef) || (ownReference && `${ownReference}/${i + 1}`),
    ),
  );
  return [...transactions, ...chargesOf(date, entry, parts, ownReference)];
}

/** What the bank has kept of a batch, or added to it: what its transactions do not come to. */
function chargesOf(date: string, entry: Node, parts: readonly Node[], reference: string): string[][] {
  const direction = (part: Node) => (part.CdtDbtInd ? part : entry);
  const inAll = parts.reduce(
    (total, part) => total + signedCents({ ...part, Amt: amountOf(part)!.value, CdtDbtInd: direction(part).CdtDbtInd }),
    0,
  );
  const charges = signedCents(entry) - inAll;
  if (charges === 0) return [];
  return [
    [
      date,
      decimal(charges),
      amountOf(entry)?.currency ?? "",
      "",
      "Charges of the bank",
      reference && `${reference}/charges`,
    ],
  ];
}

/** Sts is a plain code until version 7, and holds one from then on. */
const isBooked = (entry: Node): boolean => {
  const state = words(entry.Sts) || words(within(entry, "Sts")?.Cd);
  return state === "" || state === "BOOK";
};

function rowOf(
  date: string,
  direction: Node,
  amount: { value: string; currency: string } | null,
  details: Node,
  reference: string,
): string[] {
  const out = words(direction.CdtDbtInd) === "DBIT";
  // What is taken back came from whoever had paid it.
  const isReversed = words(direction.RvslInd) === "true";
  const party = within(details, "RltdPties", out !== isReversed ? "Cdtr" : "Dbtr");
  const returned = within(details, "RtrInf");
  const remittance = within(details, "RmtInf");
  const structured = nodes(remittance, "Strd").map((one) => words(within(one, "CdtrRefInf")?.Ref));
  const endToEnd = words(within(details, "Refs")?.EndToEndId);
  const said = [
    ...list(remittance?.Ustrd).map(words),
    ...structured,
    endToEnd === "NOTPROVIDED" ? "" : endToEnd,
    words(details.AddtlTxInf) || words(direction.AddtlNtryInf),
    isReversed || returned ? "RETURNED" : "",
    words(within(returned, "Rsn")?.Cd),
    ...list(returned?.AddtlInf).map(words),
  ];
  return [
    date,
    amount ? `${out ? "-" : ""}${amount.value}` : "",
    amount?.currency ?? "",
    words(party?.Nm) || words(within(party, "Pty")?.Nm),
    [...new Set(said.filter(Boolean))].join(" "),
    reference,
  ];
}

/** Of a transaction: its own amount, or the one in AmtDtls. */
function amountOf(node: Node): { value: string; currency: string } | null {
  const own = node.Amt ?? within(node, "AmtDtls", "TxAmt")?.Amt;
  const value = words(own);
  return value ? { value, currency: words((own as Node)["@_Ccy"]) } : null;
}

const dayOf = (node: Node | undefined): string => (words(node?.Dt) || words(node?.DtTm)).slice(0, 10);

function within(node: unknown, ...path: string[]): Node | undefined {
  let at = node;
  for (const name of path) at = typeof at === "object" && at !== null ? (at as Node)[name] : undefined;
  return typeof at === "object" && at !== null ? (at as Node) : undefined;
}
const list = (value: unknown): unknown[] => (Array.isArray(value) ? value : value === undefined ? [] : [value]);
const nodes = (node: Node | undefined, name: string): Node[] =>
  list(node?.[name]).filter((one): one is Node => typeof one === "object" && one !== null);
/** The text of an element, with or without attributes. */
const words = (value: unknown): string =>
  typeof value === "string"
    ? value.trim()
    : typeof value === "object" && value !== null
      ? words((value as Node)["#text"])
      : "";
