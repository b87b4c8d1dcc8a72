import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { startPool } from "./pool";
import { keepSignedIn, worldsIn } from "./worlds";

/** Before all files: what they share. Each gets a copy of a world that is made once. */
export default async function makeWorld(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-worlds-"));
  const worldOf = worldsIn(folder);
  const pool = await startPool(worldOf);
  process.env.HOGAR_E2E_POOL = pool.url;
  process.env.HOGAR_E2E_WORLDS = folder;
  process.env.HOGAR_E2E_SIGNED_IN = JSON.stringify(await keepSignedIn(pool.url, worldOf("demo")));
  (globalThis as { removeWorld?: () => Promise<void> }).removeWorld = async () => {
    await pool.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}
