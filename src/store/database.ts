import Database from "better-sqlite3";
import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { type AuditScope, installAudit } from "./audit";
import { installSha256 } from "./ledger-chain";
import { installPlanChanges } from "./plan-changes";

type Db = Database.Database;

export interface Store {
  db: Db;
  audit: AuditScope;
  /** One prepared statement per SQL text. */
  sql: <Row = Record<string, unknown>>(text: string) => Database.Statement<unknown[], Row>;
  /** What is kept in memory of this database, to be put back where a transaction is rolled back. */
  caches: RollbackCache[];
  /** What is kept in memory with this database, by name (store/kept.ts). */
  kept: Map<string, unknown>;
}

/** Something kept in memory of the database: `mark` says where it stands before a transaction, `back` forgets what was read since. */
interface RollbackCache {
  mark: () => { back: () => void };
}

/** Marks every cache of a store; `back` puts all of them back. */
export function markCaches({ caches }: Pick<Store, "caches">): { back: () => void } {
  const marks = caches.map((cache) => cache.mark());
  return { back: () => marks.forEach((mark) => mark.back()) };
}

/**
 * Opens (and where needed creates) the business's database, brings its schema up to date, and arms the audit triggers.
 * `:memory:`, or the bytes of a database, is one that lives in memory alone, for tests.
 */
export function openStore(file: string | Buffer, migrations = path.join(process.cwd(), "src/store/migrations")): Store {
  const db = new Database(file);
  db.pragma("journal_mode = WAL");
  db.pragma("synchronous = NORMAL");
  db.pragma("busy_timeout = 5000");
  // What is erased leaves no byte in the file.
  db.pragma("secure_delete = ON");
  installSha256(db);
  // Off while tables are made anew (SQLite's documented way to change one); nothing may be left dangling.
  db.pragma("foreign_keys = OFF");
  migrate(db, migrations);
  db.pragma("foreign_keys = ON");
  const audit = installAudit(db);
  installPlanChanges(db);
  const prepared = new Map<string, Database.Statement>();
  return {
    db,
    audit,
    caches: [],
    kept: new Map(),
    sql<Row>(text: string) {
      let statement = prepared.get(text);
      if (!statement) prepared.set(text, (statement = db.prepare(text)));
      return statement as unknown as Database.Statement<unknown[], Row>;
    },
  };
}

/** The data was written by a later version, which this one does not know how to read. */
export class LaterVersion extends Error {}

function migrate(db: Db, folder: string): void {
  const files = readdirSync(folder)
    .filter((name) => /^\d{3}-.*\.sql$/.test(name))
    .sort();
  const [known, there] = [Number(files.at(-1)?.slice(0, 3)), db.pragma("user_version", { simple: true }) as number];
  if (there > known) {
    db.close();
    throw new LaterVersion(
      `This data was written by a later version of Hogar (${there}; this one knows ${known}). Start that version, or restore a backup from before.`,
    );
  }
  for (const name of files) {
    const number = Number(name.slice(0, 3));
    // The version is asked for inside the transaction: two processes may start at once.
    db.transaction(() => {
      if ((db.pragma("user_version", { simple: true }) as number) >= number) return;
      db.exec(readFileSync(path.join(folder, name), "utf8"));
      const [dangling] = db.pragma("foreign_key_check") as { table: string }[];
      if (dangling) throw new Error(`${name} leaves a row of ${dangling.table} without what it refers to`);
      db.pragma(`user_version = ${number}`);
    }).immediate();
  }
}

/** SQLite's code of an error ("SQLITE_BUSY"), or null where it is none of its. */
export const sqliteCode = (error: unknown): string | null =>
  typeof error === "object" &&
  error !== null &&
  "code" in error &&
  typeof error.code === "string" &&
  error.code.startsWith("SQLITE")
    ? error.code
    : null;
