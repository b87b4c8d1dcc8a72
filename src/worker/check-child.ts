import { checkAll } from "@/registry/laws";
import Database from "better-sqlite3";

/** A process of its own that looks at every row of a database, and tells the process that has started it how far it is (src/server/checking.ts). */
const db = new Database(process.argv[2]!, { readonly: true });
const sql = <Row>(text: string) => db.prepare(text) as unknown as Database.Statement<unknown[], Row>;
for (const step of checkAll(sql)) process.send!(step);
db.close();
process.disconnect();
