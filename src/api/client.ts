import { passingProblems } from "@/core/passing-problems";
import type { Result } from "@/core/problems";
import type { OperationInput, OperationName, OperationOutput } from "@/registry/operations";
import type { ViewInput, ViewName, ViewOutput } from "@/registry/views";

/** Operations and views, as called from a browser: by name, typed from end to end. */
export type { OperationInput, OperationName, OperationOutput } from "@/registry/operations";
export type { ViewInput, ViewName, ViewOutput } from "@/registry/views";

/** Changes something. `link` is a customer's token, where one acts by it; `since` the last change that a form can have known of. */
export const change = <N extends OperationName>(
  name: N,
  input: OperationInput<N>,
  link?: string,
  since?: number,
): Promise<Result<OperationOutput<N>>> => post(`/api/operations/${name}`, input, link, since);

/** Reads something. */
export const ask = <N extends ViewName>(name: N, input: ViewInput<N>, link?: string): Promise<Result<ViewOutput<N>>> =>
  post(`/api/views/${name}`, input, link);

/** Was answered before: goes before those who only come, where there are too many (cli/gate.ts). */
const middleHeader = "x-hogar-middle";
let middle: string | null = null;

/** Asked again so often where there are too many, with growing pauses; meanwhile whoever listens is told. */
const mostAgain = 12;
const listeners = new Set<(isCrowded: boolean) => void>();
let waiting = 0;

/** Hears when a question waits since many people are asking, and when none does any more. Answers how to stop hearing. */
export function onCrowd(heard: (isCrowded: boolean) => void): () => void {
  listeners.add(heard);
  return () => void listeners.delete(heard);
}

function waits(change: 1 | -1): void {
  waiting += change;
  for (const heard of listeners) heard(waiting > 0);
}

export async function post<T>(path: string, body: unknown, link?: string, since?: number): Promise<Result<T>> {
  for (let again = 0; ; again++) {
    const { result, afterMs } = await postOnce<T>(path, body, link, since);
    if (result.ok || result.problem.code !== "crowded" || again === mostAgain) return result;
    waits(1);
    // Not all of them at the same moment.
    await new Promise((resolve) => setTimeout(resolve, afterMs * (0.5 + Math.random()) * Math.min(1 + again / 2, 4)));
    waits(-1);
  }
}

async function postOnce<T>(
  path: string,
  body: unknown,
  link: string | undefined,
  since: number | undefined,
): Promise<{ result: Result<T>; afterMs: number }> {
  try {
    const response = await fetch(path, {
      method: "POST",
      headers: {
        "content-type": "application/json",
        ...(link && { "x-hogar-link": link }),
        ...(since !== undefined && { "x-hogar-since": String(since) }),
        ...(middle && { [middleHeader]: middle }),
      },
      body: JSON.stringify(body),
    });
    middle = response.headers.get(middleHeader) ?? middle;
    const afterMs = Number(response.headers.get("retry-after") ?? 1) * 1_000;
    return { result: (await response.json()) as Result<T>, afterMs };
  } catch {
    return { result: { ok: false, problem: { code: "offline", sentence: passingProblems.offline } }, afterMs: 0 };
  }
}
