import { firstBroken, lawsOf } from "@/modules/records/laws";
import Database from "better-sqlite3";
import { existsSync, readdirSync } from "node:fs";
import path from "node:path";

/** Computes every law of the data in a database, which it only reads: of the data folder, or of a file. */
export function check([file]: string[]): void {
  const from = process.env.HOGAR_FROM ?? process.cwd();
  const database = file ? path.resolve(from, file) : path.join(process.env.HOGAR_DATA ?? "data", "hogar.sqlite");
  if (!existsSync(database)) throw new Error(`${database} is not there`);
  const db = new Database(database, { readonly: true });
  try {
    refuseOther(db);
    const sound = db.pragma("integrity_check", { simple: true }) as string;
    if (sound !== "ok") return broken("The file is sound.", sound);
    const [dangling] = db.pragma("foreign_key_check") as { table: string; rowid: number }[];
    if (dangling) return broken("What a row refers to is there.", `${dangling.table} ${dangling.rowid}`);
    const sql = <Row>(text: string) => db.prepare(text) as unknown as Database.Statement<unknown[], Row>;
    const found = firstBroken(sql);
    if (found) return broken(found.law, found.what);
    console.log(`${lawsOf(sql).length + 2} laws hold`);
  } finally {
    db.close();
  }
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

function broken(law: string, what: string): void {
  console.error(`broken: ${law} ${what}`);
  process.exitCode = 1;
}
