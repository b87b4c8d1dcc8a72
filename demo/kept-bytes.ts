import { openStore } from "@/store/database";
import { mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import path from "node:path";

/**
 * Databases of tests, as bytes: each kind is made once in a run by whoever needs it first, and opened from its bytes by
 * everybody after. HOGAR_TEST_DATABASES is a folder that lives as long as the run (jest.config.mjs); without it the bytes
 * are kept for this process alone.
 */
export function keptBytes(kind: string, make: () => Buffer): Buffer {
  let bytes = ofThisProcess.get(kind) ?? readKept(kind);
  if (!bytes) keep(kind, (bytes = make()));
  ofThisProcess.set(kind, bytes);
  return bytes;
}
const ofThisProcess = new Map<string, Buffer>();

/** A database with all migrations and nothing in it. */
export const emptyDatabase = (): Buffer =>
  keptBytes("empty", () => {
    const { db } = openStore(":memory:");
    const bytes = db.serialize();
    db.close();
    return bytes;
  });

const fileOf = (kind: string): string | null =>
  process.env.HOGAR_TEST_DATABASES ? path.join(process.env.HOGAR_TEST_DATABASES, `${kind}.sqlite`) : null;

function readKept(kind: string): Buffer | null {
  const file = fileOf(kind);
  if (!file) return null;
  try {
    return readFileSync(file);
  } catch {
    return null;
  }
}

/** Another process may be keeping the same: a file is there whole or not at all. */
function keep(kind: string, bytes: Buffer): void {
  const file = fileOf(kind);
  if (!file) return;
  mkdirSync(path.dirname(file), { recursive: true });
  writeFileSync(`${file}.${process.pid}`, bytes);
  renameSync(`${file}.${process.pid}`, file);
}
