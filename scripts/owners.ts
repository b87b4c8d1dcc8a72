import { modules } from "@/registry/modules";
import { groupBy } from "@/core/group";
import { readdirSync, readFileSync } from "node:fs";
import ts from "typescript";

/**
 * Who writes what. Every table has one owner, and only its owner writes it; what a module has changed of another's rows it
 * asks of a helper there. Settings are one table, of which each column is set by one module.
 */

/** A statement that writes a table, or a setting, and where it stands. */
interface Write {
  table: string;
  file: string;
  at: string;
}

/** Those who write what is not theirs, and why. */
const mayWrite: Readonly<Record<string, string>> = {
  "src/modules/customers/erasing.ts":
    "erasing overwrites what is about a person in every table, as personal.ts lists it",
  "src/modules/same-person/joining.ts": "merging re-points whatever hangs on a customer",
  "src/modules/same-person/merging-terms.ts": "what was agreed with one goes to the other",
  "src/modules/same-person/operations/same-person.ts": "and back",
  "src/modules/business/open-business.ts": "the first rows of a business, before anybody is there",
  "src/modules/booking/invited.ts":
    "a booking counts for the invitation by which it came; campaigns know bookings, not the other way round",
  "src/modules/money/billing.ts": "up to when a repeat is billed is known by the books (`bill_from`)",
  "src/kernel/settings.ts": "settings are set through it alone",
  "src/store/ledger-chain.ts": "the ledger is bound as it is written",
  "src/gateways/cards-standin.ts": "a stand-in keeps a database of its own",
  "src/modules/incoming/operations/incoming.ts": "who is on it is said of all four that can wait there",
  "src/modules/catalogue/columns.ts": "services and extras alike",
  "src/modules/catalogue/operations/save-service.ts": "tables of its own, one after the other",
  "src/modules/repeats/repeats.ts": "tables of its own, one after the other",
  "src/modules/customers/customers.ts": "tables of its own, one after the other",
};

const writing = /\b(?:INSERT(?: OR \w+)? INTO|REPLACE INTO|UPDATE(?! SET)(?: OR \w+)?|DELETE FROM)\s+(\w+|\$\{)/g;
/** Functions that take the name of a table as their second argument. */
const helpers = new Set(["insertRow", "insertOnce", "saveRow"]);
const composed = "${";

function writesOf(file: string): { writes: Write[]; settings: Write[] } {
  const source = ts.createSourceFile(file, readFileSync(file, "utf8"), ts.ScriptTarget.Latest, true);
  const [writes, settings]: [Write[], Write[]] = [[], []];
  const at = (node: ts.Node) => `${file}:${source.getLineAndCharacterOfPosition(node.getStart()).line + 1}`;
  const visit = (node: ts.Node): void => {
    if (ts.isStringLiteralLike(node) || ts.isTemplateExpression(node))
      for (const [, table] of node.getText().matchAll(writing)) writes.push({ table: table!, file, at: at(node) });
    if (ts.isCallExpression(node) && ts.isIdentifier(node.expression)) {
      const [, second] = node.arguments;
      if (helpers.has(node.expression.text) && second)
        writes.push({ table: ts.isStringLiteralLike(second) ? second.text : composed, file, at: at(node) });
      if (node.expression.text === "saveSettings" && second && ts.isObjectLiteralExpression(second))
        for (const { name } of second.properties)
          if (name && ts.isIdentifier(name)) settings.push({ table: name.text, file, at: at(node) });
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return { writes, settings };
}

const moduleOf = (file: string): string => /^src\/modules\/([\w-]+)\//.exec(file)?.[1] ?? "";

/** What is written by somebody who does not own it, in sentences. */
export function foreignWrites(): string[] {
  const owner = new Map<string, string>(modules.flatMap(({ name, owns }) => owns.map((table) => [table, name])));
  const files = readdirSync("src", { recursive: true, encoding: "utf8" })
    .filter((file) => /\.tsx?$/.test(file) && !/\.test\.tsx?$/.test(file))
    .map((file) => `src/${file}`);
  const all = files.map(writesOf);
  const writes = all.flatMap((one) => one.writes);
  const foreign = writes.filter(({ table, file }) => (owner.get(table) ?? "") !== moduleOf(file));
  const settings = all.flatMap((one) => one.settings);
  const setters = groupBy(settings, ({ table }) => table);
  return [
    ...foreign
      .filter(({ file }) => !(file in mayWrite))
      .map(({ table, at }) =>
        table === composed
          ? `${at} writes a table whose name cannot be read off`
          : `${at} writes ${table}, which is ${owner.has(table) ? `owned by ${owner.get(table)}` : "the kernel's"}`,
      ),
    ...[...setters]
      .filter(([, by]) => new Set(by.map(({ file }) => moduleOf(file))).size > 1)
      .map(([column, by]) => `The setting ${column} is set in ${by.map(({ at }) => at).join(" and ")}`),
    ...Object.keys(mayWrite)
      .filter((file) => !foreign.some((one) => one.file === file))
      .map((file) => `${file} writes nothing of others any more: take it off the list in scripts/owners.ts`),
  ];
}
