import type { Checked } from "@/registry/routes";
import { type ChildProcess, fork } from "node:child_process";
import path from "node:path";
import { dataFolder } from "./shared";

/** How far the look at every row is; null where none was begun. */
type State = Checked & { ended: boolean; problem: string | null };

// Kept globally, since the server loads its modules more than once.
const kept = globalThis as { checking?: { state: State; child: ChildProcess } };

/** Begins to look at every row, in a process of its own: no request waits for it. Where one is under way, that one goes on. */
export function beginCheck(): State {
  if (kept.checking && !kept.checking.state.ended) return kept.checking.state;
  const file = path.join(/* turbopackIgnore: true */ process.cwd(), "src/worker/check-child.ts");
  const child = fork(/* turbopackIgnore: true */ file, [path.join(dataFolder(), "hogar.sqlite")], {
    execArgv: ["--import", "tsx"],
  });
  const state: State = { done: 0, laws: 0, broken: null, ended: false, problem: null };
  kept.checking = { state, child };
  child.on("message", (step) => Object.assign(state, step as Checked));
  child.once("exit", (code) => {
    state.ended = true;
    if (code !== 0 && state.broken === null) state.problem = "It was stopped before the end.";
  });
  return state;
}

export const howFar = (): State | null => kept.checking?.state ?? null;

export function stopCheck(): void {
  kept.checking?.child.kill();
}
