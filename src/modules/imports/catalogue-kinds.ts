import { type CatalogueDraft, catalogueOf } from "@/core/imports/catalogue-row";
import { moneyWords } from "@/core/money/amounts";
import { Refusal } from "@/core/problems";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { storeExtra } from "@/modules/catalogue/saving-extras";
import { categoryNamed, storeService } from "@/modules/catalogue/saving-services";
import type { Done } from "@/store/columns";
import type { KindOfImport } from "./kind";
import { changeColumns, removeUnused } from "@/modules/catalogue/columns";

type Table = "services" | "extras";
type Known = { id: number; table: Table };
type Columns = Record<string, string | number | null>;

const read = ({ business }: ViewContext, values: Record<string, string>, kind: "services" | "extras" | "prices") =>
  catalogueOf(values, kind, business.currency);

export const servicesKind = kindFor("services");
export const extrasKind = kindFor("extras");
export const pricesKind = kindFor("prices");

/** Services, extras, or new prices of both: known by code or name. What is known is changed where the row says something. */
function kindFor(kind: "services" | "extras" | "prices"): KindOfImport {
  const find = (context: ViewContext, draft: CatalogueDraft): Known | null =>
    (kind === "extras" ? null : named(context, "services", draft)) ??
    (kind === "services" ? null : named(context, "extras", draft));
  return {
    check(context, values) {
      const { draft, problems } = read(context, values, kind);
      const known = find(context, draft);
      if (kind === "prices" && !known && problems.length === 0)
        problems.push({ field: "name", sentence: `No service or extra is called “${draft.name || draft.code}”.` });
      return { problems, same: known && { id: numbered(known), certain: true } };
    },
    keys: (context, values) => {
      const { draft } = read(context, values, kind);
      const certain = [draft.name.toLowerCase(), ...(draft.code ? [`code ${draft.code}`] : [])].filter(Boolean);
      return { certain, likely: [] };
    },
    take(context, values, _columns, joined) {
      const { draft } = read(context, values, kind);
      return joined === null ? make(context, kind, draft) : change(context, unnumbered(joined), draft);
    },
    undo: (context, done) => (done.made ? removeUnused(context, unnumbered(done.id)) : putBack(context, done)),
    words(context, values) {
      const { draft } = read(context, values, kind);
      return { name: draft.name || draft.code, details: detailsOf(draft, context.business.currency) };
    },
    known(context, id) {
      const { table, id: row } = unnumbered(id);
      const found = context
        .sql<{ name: string; price_minor: number; more: string }>(
          table === "services"
            ? "SELECT name, price_minor, category || ' · ' || minutes || ' min' AS more FROM services WHERE id = ?"
            : "SELECT name, price_minor, 'per ' || unit AS more FROM extras WHERE id = ?",
        )
        .get(row);
      return found
        ? { name: found.name, details: [moneyWords(found.price_minor, context.business.currency), found.more] }
        : null;
    },
  };
}

/** Services and extras have numbers of their own: extras stand below zero where both can be meant. */
const numbered = ({ table, id }: Known): number => (table === "services" ? id : -id);
const unnumbered = (id: number): Known => ({ table: id > 0 ? "services" : "extras", id: Math.abs(id) });

function named({ sql }: ViewContext, table: Table, { name, code }: CatalogueDraft): Known | null {
  const byCode = table === "services" && code;
  const row = byCode
    ? sql<{ id: number }>("SELECT id FROM services WHERE code = ? COLLATE NOCASE").get(code)
    : sql<{ id: number }>(`SELECT id FROM ${table} WHERE name = ? COLLATE NOCASE`).get(name);
  return row ? { table, id: row.id } : null;
}

const detailsOf = (draft: CatalogueDraft, currency: string): string[] =>
  [
    moneyWords(draft.priceMinor, currency),
    draft.minutes === null ? "" : `${draft.minutes} min`,
    draft.category,
    draft.unit && `per ${draft.unit}`,
  ].filter(Boolean);

function make(context: OperationContext, kind: "services" | "extras" | "prices", draft: CatalogueDraft): Done {
  const taxBp = draft.taxBp ?? usualTax(context);
  if (kind === "extras") {
    const { id } = storeExtra(context, {
      id: null,
      name: draft.name,
      unit: draft.unit || "piece",
      priceMinor: draft.priceMinor,
      costMinor: draft.costMinor ?? 0,
      taxBp,
      active: true,
    });
    return { id: numbered({ table: "extras", id }), made: true };
  }
  if (kind === "prices") throw new Refusal("not-found");
  const { id } = storeService(context, {
    id: null,
    code: draft.code || freeCode(context, draft.name),
    name: draft.name,
    category: draft.category || "Other",
    description: draft.description,
    priceMinor: draft.priceMinor,
    taxBp,
    minutes: draft.minutes!,
    beforeMinutes: 0,
    afterMinutes: 0,
    crew: 1,
    skills: [],
    deposit: { kind: "none", value: 0 },
    active: true,
  });
  return { id, made: true };
}

/** The rate most services have; the first of the business's where there are none. */
const usualTax = ({ sql }: OperationContext): number =>
  sql<{ bp: number }>("SELECT tax_bp AS bp FROM services GROUP BY tax_bp ORDER BY count(*) DESC LIMIT 1").get()?.bp ??
  sql<{ bp: number }>("SELECT rate_bp AS bp FROM tax_rates LIMIT 1").get()?.bp ??
  0;

/** Two letters that no service has yet, of the name where that can be. */
function freeCode({ sql }: OperationContext, name: string): string {
  const letters = [
    ...name
      .normalize("NFKD")
      .toUpperCase()
      .replace(/[^A-Z]/g, ""),
    ..."ABCDEFGHIJKLMNOPQRSTUVWXYZ",
  ];
  for (const [i, first] of letters.entries())
    for (const second of [...letters.slice(i + 1), ...letters.slice(0, i + 1)]) {
      const code = first + second;
      if (!sql("SELECT 1 FROM services WHERE code = ? COLLATE NOCASE").get(code)) return code;
    }
  throw new Refusal("name-taken", { sentence: "All codes of two letters are taken." });
}

function change(context: OperationContext, { table, id }: Known, draft: CatalogueDraft): Done {
  const { sql } = context;
  const set: Columns = { price_minor: draft.priceMinor };
  if (table === "services") {
    if (draft.minutes !== null) set.minutes = draft.minutes;
    if (draft.description) set.description = draft.description;
    if (draft.category) set.category = categoryNamed(context, draft.category).name;
  } else {
    if (draft.costMinor !== null) set.cost_minor = draft.costMinor;
    if (draft.unit) set.unit = draft.unit;
  }
  if (draft.taxBp !== null) set.tax_bp = draft.taxBp;
  const row = sql<Columns>(`SELECT * FROM ${table} WHERE id = ?`).get(id);
  if (!row) throw new Refusal("not-found");
  const before = Object.fromEntries(Object.keys(set).map((column) => [column, row[column]!]));
  changeColumns(context, { table, id }, set);
  return { id: numbered({ table, id }), made: false, before, after: set };
}

function putBack(context: OperationContext, { id, before = {}, after = {} }: Done): boolean {
  const known = unnumbered(id);
  const now = context.sql<Columns>(`SELECT * FROM ${known.table} WHERE id = ?`).get(known.id);
  if (!now) return true;
  changeColumns(
    context,
    known,
    Object.fromEntries(Object.entries(before).filter(([column]) => now[column] === after[column])),
  );
  return true;
}
