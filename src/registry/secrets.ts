import { randomBytes } from "node:crypto";
import { chmodSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import path from "node:path";
import { isMainThread } from "node:worker_threads";

/** The data folder and what lies in it are readable by this user alone, whatever the machine's habit (umask). */
export function keepToOurselves(folder: string): void {
  // A thread has the habit of its process, and cannot change it.
  if (isMainThread) process.umask(0o077);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  close(folder);
}

function close(folder: string): void {
  restrict(folder, 0o700);
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const inside = path.join(folder, entry.name);
    if (entry.isDirectory()) close(inside);
    else if (entry.isFile()) restrict(inside, 0o600);
  }
}

function restrict(at: string, mode: number): void {
  try {
    chmodSync(at, mode);
  } catch (error) {
    // Another connection may have put its journal away this moment; some disks know no modes.
    if ((error as NodeJS.ErrnoException).code !== "ENOENT") console.warn(`${at} could not be closed to others:`, error);
  }
}

const fileOf = (folder: string): string => path.join(folder, "secret");
const newSecret = (): string => randomBytes(32).toString("base64url");

/** The installation's secrets, the newest first; the first one is made here. */
export function keptSecrets(folder: string): string[] {
  const file = fileOf(folder);
  if (!existsSync(file)) writeFileSync(file, `${newSecret()}\n`, { mode: 0o600, flag: "wx" });
  return readFileSync(file, "utf8").split("\n").filter(Boolean);
}

/** Puts a new secret before the others, which go on opening what they have sealed. */
export const addSecret = (folder: string): void => write(folder, [newSecret(), ...keptSecrets(folder)]);

/** Leaves the newest alone: what others have sealed is open no more. */
export const forgetOldSecrets = (folder: string): void => write(folder, keptSecrets(folder).slice(0, 1));

/** Whole or not at all: a half-written secret would shut everybody out. */
function write(folder: string, secrets: readonly string[]): void {
  const next = `${fileOf(folder)}.new`;
  writeFileSync(next, `${secrets.join("\n")}\n`, { mode: 0o600 });
  renameSync(next, fileOf(folder));
}
