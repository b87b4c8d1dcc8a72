import { type BankDraft, bankLineOf } from "@/core/imports/bank-row";
import type { Columns } from "@/core/imports/match-columns";
import { moneyWords } from "@/core/money/amounts";
import { dayShort } from "@/core/time/words";
import type { ViewContext } from "@/kernel/operation";
import type { Rows } from "@/store/rows";
import { createHash } from "node:crypto";
import type { KindOfImport } from "./kind";
import { addBankLine, removeOpenLine } from "@/modules/money/bank";

/** What tells a line apart, so that nobody can read it there: who has paid may ask to be erased. */
const keyOf = ({ key }: BankDraft): string => hashOf(key);
const hashOf = (key: string): string => createHash("sha256").update(key).digest("hex");

/** A line that is there: the same for certain, or one that may be the same and is asked about. */
function knownLine({ sql }: ViewContext, draft: BankDraft): { id: number; certain: boolean } | null {
  const same = sql<{ id: number }>("SELECT id FROM bank_lines WHERE key = ?").get(keyOf(draft));
  if (same) return { id: same.id, certain: true };
  const before = sql<Rows["bank_lines"]>("SELECT * FROM bank_lines WHERE key = ?").get(hashOf(draft.keyBefore));
  const { date, amountMinor, name, words } = draft;
  if (before)
    return {
      id: before.id,
      certain: [before.date, before.amount_minor, before.name, before.words].every(
        (said, i) => said === [date, amountMinor, name, words][i],
      ),
    };
  // Told in other words, as in a file of another kind, it may be the same.
  const alike = sql<{ id: number }>(
    "SELECT id FROM bank_lines WHERE date = ? AND amount_minor = ? AND (name = ? OR name = '' OR ? = '') AND words <> ? LIMIT 1",
  ).get(date, amountMinor, name, name, words);
  return alike ? { id: alike.id, certain: false } : null;
}

const read = ({ business }: ViewContext, values: Record<string, string>, { dates }: Columns) =>
  bankLineOf(values, { dates, currency: business.currency });

const detailsOf = (line: Pick<BankDraft, "date" | "amountMinor" | "words">, currency: string): string[] =>
  [line.date && dayShort(line.date), moneyWords(line.amountMinor, currency), line.words].filter(Boolean);

/** Lines of a bank's statement. What is known already is left as it is: files may overlap. */
export const bankLinesKind: KindOfImport = {
  check(context, values, columns) {
    const { draft, problems } = read(context, values, columns);
    return { problems, same: knownLine(context, draft) };
  },
  keys: (context, values, columns) => ({ certain: [keyOf(read(context, values, columns).draft)], likely: [] }),
  take(context, values, columns, joined) {
    if (joined !== null) return { id: joined, made: false };
    const { draft } = read(context, values, columns);
    const { date, amountMinor, name, words } = draft;
    const id = addBankLine(context, { key: keyOf(draft), date, amount_minor: amountMinor, name, words });
    return { id, made: true };
  },
  undo: (context, { id, made }) => !made || removeOpenLine(context, id),
  words(context, values, columns) {
    const { draft } = read(context, values, columns);
    return { name: draft.name || "–", details: detailsOf(draft, context.business.currency) };
  },
  known({ sql, business }, id) {
    const line = sql<Rows["bank_lines"]>("SELECT * FROM bank_lines WHERE id = ?").get(id);
    return (
      (line && {
        name: line.name || "–",
        details: detailsOf({ date: line.date, amountMinor: line.amount_minor, words: line.words }, business.currency),
      }) ??
      null
    );
  },
};
