import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { makeDemo } from "./demo-world";

/** Before all files: the demo world that each of them gets a copy of. */
export default function makeWorld(): void {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-world-"));
  makeDemo({ ...process.env, HOGAR_DATA: folder, NODE_ENV: "production" });
  process.env.HOGAR_E2E_WORLD = folder;
}
