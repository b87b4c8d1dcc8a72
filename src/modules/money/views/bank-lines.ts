import { bankMatcher, type Match, type Proposal } from "@/core/money/bank-matching";
import { moneyWords, parseMoney } from "@/core/money/amounts";
import { input, OneOf } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { likePattern, pageInput, readPage } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import { type Line, openBooks } from "../bank";

const bankLinesShown = ["open", "matched", "posted", "set aside", "all"] as const;

/** One page of the bank's lines; each that is open with what it may be. Looked for by name, words and amount. */
export const bankLines = defineView({
  name: "bank-lines",
  access: "money.see of all",
  input: input({ ...pageInput(["date", "amountMinor"] as const), show: OneOf(bankLinesShown) }),
  read(context, { show, ...asked }) {
    const { sql, business } = context;
    const { rows: ids, count } = readPage(context, asked, {
      from: "FROM bank_lines b",
      where: `(@show = 'all' OR b.state = @show)
        AND (@search IS NULL OR b.name LIKE @search ESCAPE '\\' OR b.words LIKE @search ESCAPE '\\' OR abs(b.amount_minor) = @amount)`,
      id: "b.id",
      order: { date: "b.date", amountMinor: "b.amount_minor" },
      params: { show, search: likePattern(asked.search), amount: parseMoney(asked.search, business.currency) },
    });
    const lineOf = sql<Line>("SELECT * FROM bank_lines WHERE id = ?");
    const lines = ids.map((id) => lineOf.get(id)!);
    const propose = lines.some(({ state }) => state === "open") ? bankMatcher(openBooks(context)) : () => [];
    return {
      currency: business.currency,
      count,
      accounts: sql<{ id: number; name: string }>(
        "SELECT id, name FROM own_accounts WHERE active = 1 ORDER BY number, name",
      ).all(),
      open: sql<{ n: number }>("SELECT count(*) AS n FROM bank_lines WHERE state = 'open'").get()!.n,
      rows: lines.map((line) => ({
        id: line.id,
        date: line.date,
        amountMinor: line.amount_minor,
        name: line.name,
        words: line.words,
        state: line.state,
        why: line.why,
        is:
          line.state === "matched"
            ? matchedWords(context, line)
            : line.own_account_id !== null
              ? { words: nameOfAccount(context, line.own_account_id), invoiceId: null }
              : null,
        mayReopen: line.state !== "open" && line.payout_id === null && line.returned_id === null,
        proposals:
          line.state === "open"
            ? propose({ date: line.date, amountMinor: line.amount_minor, name: line.name, words: line.words }).map(
                ({ match, sure, why }) => ({
                  match,
                  sure,
                  why,
                  words: proposalWords(context, line, { match, sure, why }),
                }),
              )
            : [],
      })),
    };
  },
});

const nameOfAccount = ({ sql }: ViewContext, id: number): string =>
  sql<{ name: string }>("SELECT name FROM own_accounts WHERE id = ?").get(id)!.name;

function proposalWords(context: ViewContext, line: Line, { match }: Proposal): string {
  if (match.kind !== "invoices") {
    const words = knownWords(context, match.kind, match.id);
    const beside =
      match.kind === "payout"
        ? line.amount_minor -
          context.sql<{ n: number }>("SELECT amount_minor AS n FROM payouts WHERE id = ?").get(match.id)!.n
        : 0;
    if (beside === 0) return words;
    return `${words}, ${moneyWords(Math.abs(beside), context.business.currency)} ${beside < 0 ? "less" : "more"} than announced, as a fee`;
  }
  const { sql } = context;
  const { name } = sql<{ name: string }>("SELECT name FROM customers WHERE id = ?").get(match.customerId)!;
  const labels = match.invoices.map(
    ({ invoiceId }) => sql<{ label: string }>("SELECT label FROM invoices WHERE id = ?").get(invoiceId)!.label,
  );
  return `${name}: ${labels.length === 1 ? "invoice" : "invoices"} ${labels.join(", ")}`;
}

function knownWords({ sql }: ViewContext, kind: Exclude<Match["kind"], "invoices">, id: number): string {
  if (kind === "payout")
    return `Payout ${sql<{ reference: string }>("SELECT reference FROM payouts WHERE id = ?").get(id)!.reference}`;
  const { name } = sql<{ name: string }>(
    kind === "recorded" || kind === "returned"
      ? "SELECT c.name FROM payments p JOIN customers c ON c.id = p.customer_id WHERE p.id = ?"
      : "SELECT c.name FROM refunds r JOIN payments p ON p.id = r.payment_id JOIN customers c ON c.id = p.customer_id WHERE r.id = ?",
  ).get(id)!;
  return `${name}: ${{ recorded: "the payment that was recorded by hand", refund: "the refund", returned: "the payment goes back, what it paid is open again" }[kind]}`;
}

/** What a matched line is: in words, with the invoice it paid first. */
function matchedWords(context: ViewContext, line: Line): { words: string; invoiceId: number | null } {
  if (line.payout_id !== null) return { words: knownWords(context, "payout", line.payout_id), invoiceId: null };
  if (line.returned_id !== null) return { words: knownWords(context, "returned", line.returned_id), invoiceId: null };
  if (line.refund_id !== null) return { words: knownWords(context, "refund", line.refund_id), invoiceId: null };
  const paid = context
    .sql<{ id: number; label: string }>(
      `SELECT i.id, i.label FROM allocations a JOIN invoices i ON i.id = a.invoice_id WHERE a.payment_id = ?
        GROUP BY i.id HAVING sum(a.amount_minor) > 0 ORDER BY i.id`,
    )
    .all(line.payment_id);
  const { name } = context
    .sql<{ name: string }>("SELECT c.name FROM payments p JOIN customers c ON c.id = p.customer_id WHERE p.id = ?")
    .get(line.payment_id)!;
  const what = paid.length ? `invoice ${paid.map(({ label }) => label).join(", ")}` : "credit";
  return { words: `${name}: ${what}`, invoiceId: paid[0]?.id ?? null };
}
