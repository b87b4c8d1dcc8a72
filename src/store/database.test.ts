import Database from "better-sqlite3";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { LaterVersion, openStore } from "./database";

it("data of a later version is not opened, with a sentence that says what to do, and nothing of it is changed", () => {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-later-"));
  const file = path.join(folder, "hogar.sqlite");
  const later = new Database(file);
  later.exec("CREATE TABLE of_a_later_version (id INTEGER); PRAGMA user_version = 900");
  later.close();
  expect(() => openStore(file)).toThrow(LaterVersion);
  expect(() => openStore(file)).toThrow(/later version of Hogar \(900; this one knows \d+\)\. Start that version/);
  const left = new Database(file, { readonly: true });
  expect(left.prepare("SELECT name FROM sqlite_master").all()).toEqual([{ name: "of_a_later_version" }]);
  left.close();
  rmSync(folder, { recursive: true });
});
