import { spawnSync } from "node:child_process";

// Read by Jest's global set-up too, which knows no path aliases.

/** Eight days of history, on a Tuesday morning: made once in a run (make-world.ts) and copied for each file. */
export const makeDemo = (env: NodeJS.ProcessEnv, historyDays = 8): void =>
  runTsx(["demo/make.ts", "--history-days", String(historyDays), "--at", nextTuesday()], env);

/** Tests begin on a Tuesday morning, on whatever day and at whatever hour they run. */
function nextTuesday(): string {
  const day = new Date();
  do day.setUTCDate(day.getUTCDate() + 1);
  while (day.getUTCDay() !== 2);
  return `${day.toISOString().slice(0, 10)}T08:05`;
}

export function runTsx(args: string[], env: NodeJS.ProcessEnv): void {
  const made = spawnSync("npx", ["--no-install", "tsx", ...args], { cwd: process.cwd(), env, encoding: "utf8" });
  if (made.status !== 0) throw new Error(`${args[0]} failed: ${made.stderr}`);
}
