import Database from "better-sqlite3";
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";

it("the command line makes a business, refuses a second one, and copies its data", () => {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-cli-"));
  const hogar = (...args: string[]) =>
    spawnSync(process.execPath, ["--import", "tsx", "cli/hogar.ts", ...args], {
      encoding: "utf8",
      env: { ...process.env, HOGAR_DATA: folder },
    });
  const init = [
    "init",
    "--name",
    "Marrowick Hearth & Flue",
    "--owner",
    "Odile Brandt",
    "--mail",
    "odile@marrowick.example",
    "--password",
    "open the door",
  ];
  expect(hogar("init", "--name", "X")).toMatchObject({
    status: 2,
    stderr: expect.stringContaining("--name, --owner, --mail and --password are needed"),
  });
  expect(hogar(...init).stdout).toContain("is made in");
  expect(hogar(...init)).toMatchObject({ status: 2, stderr: expect.stringContaining("holds a business already") });
  expect(hogar("dance")).toMatchObject({ status: 2, stderr: expect.stringContaining("Usage") });
  const copy = path.join(folder, "copy.sqlite");
  expect(hogar("backup", copy).status).toBe(0);
  const db = new Database(copy, { readonly: true });
  expect(db.prepare("SELECT name, demo_offset_ms FROM business").get()).toEqual({
    name: "Marrowick Hearth & Flue",
    demo_offset_ms: null,
  });
  db.close();
  rmSync(folder, { recursive: true, force: true });
});
