import { bankMatcher, type Match, type Proposal } from "@/core/money/bank-matching";
import { parseMoney } from "@/core/money/amounts";
import { input, OneOf } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { likePattern, pageInput, readPage } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import { type Line, openBooks } from "../bank";

const bankLinesShown = ["open", "matched", "set aside", "all"] as const;

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
      open: sql<{ n: number }>("SELECT count(*) AS n FROM bank_lines WHERE state = 'open'").get()!.n,
      rows: lines.map((line) => ({
        id: line.id,
        date: line.date,
        amountMinor: line.amount_minor,
        name: line.name,
        words: line.words,
        state: line.state,
        why: line.why,
        is: line.state === "matched" ? matchedWords(context, line) : null,
        mayReopen: line.state !== "open" && line.payout_id === null,
        proposals:
          line.state === "open"
            ? propose({ date: line.date, amountMinor: line.amount_minor, name: line.name, words: line.words }).map(
                ({ match, sure, why }) => ({ match, sure, why, words: proposalWords(context, { match, sure, why }) }),
              )
            : [],
      })),
    };
  },
});

function proposalWords(context: ViewContext, { match }: Proposal): string {
  if (match.kind !== "invoices") return knownWords(context, match.kind, match.id);
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
    kind === "recorded"
      ? "SELECT c.name FROM payments p JOIN customers c ON c.id = p.customer_id WHERE p.id = ?"
      : "SELECT c.name FROM refunds r JOIN payments p ON p.id = r.payment_id JOIN customers c ON c.id = p.customer_id WHERE r.id = ?",
  ).get(id)!;
  return kind === "recorded" ? `${name}: the payment that was recorded by hand` : `${name}: the refund`;
}

/** What a matched line is: in words, with the invoice it paid first. */
function matchedWords(context: ViewContext, line: Line): { words: string; invoiceId: number | null } {
  if (line.payout_id !== null) return { words: knownWords(context, "payout", line.payout_id), invoiceId: null };
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
