import { firstBroken, lawsOf } from "@/registry/laws";
import { headOfChain } from "@/store/ledger-chain";
import Database from "better-sqlite3";
import { existsSync, readdirSync } from "node:fs";
import path from "node:path";

/** Computes every law of the data in a database, which it only reads: of the data folder, or of a file. */
export function check([file]: string[]): void {
  const from = process.env.HOGAR_FROM ?? process.cwd();
  const { broken, laws, head } = brokenIn(
    file ? path.resolve(from, file) : path.join(process.env.HOGAR_DATA ?? "data", "hogar.sqlite"),
  );
  if (!broken) {
    console.log(`${laws} laws hold`);
    if (head) console.log(`the ledger has ${head.events} events, the last bound by ${head.hash}`);
    return;
  }
  console.error(`broken: ${broken}`);
  process.exitCode = 1;
}

/** How many laws there are for a database, the first that is broken, with what breaks it, and where the ledger's chain ends. */
export function brokenIn(database: string): {
  laws: number;
  broken: string | null;
  head: ReturnType<typeof headOfChain>;
} {
  if (!existsSync(database)) throw new Error(`${database} is not there`);
  const db = new Database(database, { readonly: true });
  try {
    refuseOther(db);
    const sql = <Row>(text: string) => db.prepare(text) as unknown as Database.Statement<unknown[], Row>;
    return { laws: lawsOf(sql).length + 2, broken: unsoundIn(db) ?? unlawfulIn(sql), head: headOfChain(sql) };
  } finally {
    db.close();
  }
}

function unsoundIn(db: Database.Database): string | null {
  const sound = db.pragma("integrity_check", { simple: true }) as string;
  if (sound !== "ok") return `The file is sound. ${sound}`;
  const [dangling] = db.pragma("foreign_key_check") as { table: string; rowid: number }[];
  return dangling ? `What a row refers to is there. ${dangling.table} ${dangling.rowid}` : null;
}

function unlawfulIn(sql: Parameters<typeof firstBroken>[0]): string | null {
  const found = firstBroken(sql);
  return found && `${found.law} ${found.what}`;
}

/** Laws are about the tables as they are now. */
function refuseOther(db: Database.Database): void {
  const is = db.pragma("user_version", { simple: true }) as number;
  const should = Math.max(...readdirSync("src/store/migrations").map((name) => Number(name.slice(0, 3)) || 0));
  if (is !== should)
    throw new Error(
      `this database is of version ${is}, and laws are those of version ${should}: start Hogar on it once`,
    );
}
