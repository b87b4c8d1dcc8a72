import { openStore, type Store } from "@/store/database";
import { foreignWrites } from "./owners";
import { readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import prettier from "prettier";
import ts from "typescript";

/**
 * The types of rows come from the migrations. `npm run rows` writes src/store/rows.ts anew, and then
 * reads every query of the code against the schema: each must be known to SQLite, and give the columns
 * that its row type names, text where text is expected and numbers where numbers are; and each table is written by its
 * owner alone (scripts/owners.ts). With `--check`
 * nothing is written; what is out of date or wrong ends it with 1.
 */
const file = "src/store/rows.ts";
const check = process.argv.includes("--check");
const store = openStore(":memory:");
const problems: string[] = [];

const text = await prettier.format(rowsFile(store), { ...(await prettier.resolveConfig(file)), filepath: file });
if (!check) writeFileSync(file, text);
else if (readFileSync(file, "utf8") !== text) problems.push(`${file} is not what the migrations say: npm run rows`);
const read = checkQueries(store);
problems.push(...foreignWrites());
console.log(problems.length ? problems.join("\n") : `${read} queries give the rows that are expected of them`);
process.exit(problems.length ? 1 : 0);

interface Column {
  name: string;
  type: string;
  notnull: number;
  dflt_value: string | null;
  pk: number;
}

function rowsFile({ db }: Store): string {
  const tables = db
    .prepare(
      `SELECT m.name, m.type, m.sql FROM sqlite_master m JOIN pragma_table_list t ON t.name = m.name AND t.schema = 'main'
        WHERE t.type IN ('table', 'view') AND m.name NOT LIKE 'sqlite%' ORDER BY m.name`,
    )
    .all() as { name: string; type: string; sql: string }[];
  const whole = tables.map(({ name, type, sql }) => {
    const columns = db.pragma(`table_info(${name})`) as Column[];
    const fields = columns.map(
      (column) => `${column.name}: ${type === "view" ? viewType(column) : columnType(column, sql)};`,
    );
    return `${name}: {\n${fields.join("\n")}\n};`;
  });
  const fresh = tables
    .filter(({ type }) => type === "table")
    .map(({ name }) => {
      const columns = db.pragma(`table_info(${name})`) as Column[];
      const optional = columns.filter((c) => !c.notnull || c.dflt_value !== null).map((c) => `"${c.name}"`);
      return `${name}: ${optional.length ? optional.join(" | ") : "never"};`;
    });
  return `// Made from the migrations by \`npm run rows\`; not to be changed by hand.

/** A list or an object as JSON text: read and written by a column of store/columns. */
export type Json = string;

/** A whole row of each table and view, as SQLite gives it. */
export interface Rows {
${whole.join("\n")}
}

/** What a new row of a table may leave out: what has a default or may be null. */
export interface LeftOut {
${fresh.join("\n")}
}
`;
}

/** What a column of a table holds: the values that its CHECK allows, where it names them. */
function columnType({ name, type, notnull, pk }: Column, sql: string): string {
  const lists = [...sql.matchAll(new RegExp(`\\b${name} IN \\(([^()]*)\\)`, "g"))].map((m) => m[1]!);
  const widest = lists.sort((a, b) => b.length - a.length)[0];
  const values = widest?.split(",").map((value) => value.trim().replaceAll("'", '"'));
  const isJson = new RegExp(`json_valid\\(${name}\\)`).test(sql);
  const base = values
    ? values.join(" | ")
    : isJson
      ? "Json"
      : type === "TEXT"
        ? "string"
        : type === "BLOB"
          ? "Buffer"
          : "number";
  return notnull || pk ? base : `${base} | null`;
}

/** Views compute numbers; what they take over from a table keeps its type. */
function viewType({ type }: Column): string {
  return type === "TEXT" ? "string" : "number";
}

/** Prepares every query that stands in the code as one text, and compares its columns with the type of its row. */
function checkQueries({ db }: Store): number {
  const config = ts.getParsedCommandLineOfConfigFile(
    "tsconfig.json",
    {},
    {
      ...ts.sys,
      onUnRecoverableConfigFileDiagnostic: (d) => {
        throw new Error(String(d.messageText));
      },
    },
  )!;
  const program = ts.createProgram(config.fileNames, config.options);
  const checker = program.getTypeChecker();
  let count = 0;
  for (const source of program.getSourceFiles()) {
    const name = path.relative(process.cwd(), source.fileName);
    if (/^(src|demo|cli|bench)\//.test(name)) visit(source, name);
  }
  return count;

  function visit(node: ts.Node, name: string): void {
    if (ts.isCallExpression(node) && /(^|\.)sql$/.test(node.expression.getText())) {
      const query = node.arguments[0] && textOf(node.arguments[0]);
      if (query && /Statement/.test(checker.typeToString(checker.getTypeAtLocation(node)))) compare(node, query, name);
    }
    ts.forEachChild(node, (child) => visit(child, name));
  }

  /** The text of a query where it is known before it runs; a list of states (`states.sql(…)`) stands for itself. */
  function textOf(query: ts.Expression): string | null {
    if (ts.isStringLiteralLike(query)) return query.text;
    if (!ts.isTemplateExpression(query)) return null;
    let text = query.head.text;
    for (const { expression, literal } of query.templateSpans) {
      const type = checker.getTypeAtLocation(expression);
      const isStates = ts.isCallExpression(expression) && /\.sql$/.test(expression.expression.getText());
      if (!isStates && !type.isStringLiteral()) return null;
      text += (isStates ? "('x')" : (type as ts.StringLiteralType).value) + literal.text;
    }
    return text;
  }

  function compare(call: ts.CallExpression, query: string, name: string): void {
    const at = `${name}:${call.getSourceFile().getLineAndCharacterOfPosition(call.getStart()).line + 1}`;
    count++;
    try {
      const statement = db.prepare(query);
      const row = call.typeArguments?.[0];
      if (!row || !statement.reader) return;
      const columns = new Map(statement.columns().map((column) => [column.name, column.type]));
      for (const property of checker.getTypeFromTypeNode(row).getProperties()) {
        const column = columns.get(property.name);
        const type = checker.getTypeOfSymbol(property);
        if (column === undefined) problems.push(`${at} expects ${property.name}, which the query does not give`);
        else if (column && kindOf(type) !== null && kindOf(type) !== (column === "TEXT" ? "text" : "number"))
          problems.push(`${at} expects ${property.name} as ${checker.typeToString(type)}, but it is ${column}`);
      }
    } catch (error) {
      problems.push(`${at} ${(error as Error).message}`);
    }
  }

  function kindOf(type: ts.Type): "text" | "number" | null {
    const kinds = (type.isUnion() ? type.types : [type])
      .filter((t) => !(t.flags & (ts.TypeFlags.Null | ts.TypeFlags.Undefined)))
      .map((t) => (t.flags & ts.TypeFlags.StringLike ? "text" : t.flags & ts.TypeFlags.NumberLike ? "number" : null));
    return kinds.every((kind) => kind === kinds[0]) ? (kinds[0] ?? null) : null;
  }
}
