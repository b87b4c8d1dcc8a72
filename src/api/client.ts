import { problems, type Result } from "@/core/problems";
import type { OperationInput, OperationName, OperationOutput } from "@/registry/operations";
import type { ViewInput, ViewName, ViewOutput } from "@/registry/views";

/** Operations and views, as called from a browser: by name, typed from end to end. */
export type { OperationInput, OperationName, OperationOutput } from "@/registry/operations";
export type { ViewInput, ViewName, ViewOutput } from "@/registry/views";

/** Changes something. `link` is a customer's token, where one acts by it. */
export const change = <N extends OperationName>(
  name: N,
  input: OperationInput<N>,
  link?: string,
): Promise<Result<OperationOutput<N>>> => post(`/api/operations/${name}`, input, link);

/** Reads something. */
export const ask = <N extends ViewName>(name: N, input: ViewInput<N>, link?: string): Promise<Result<ViewOutput<N>>> =>
  post(`/api/views/${name}`, input, link);

export async function post<T>(path: string, body: unknown, link?: string): Promise<Result<T>> {
  try {
    const response = await fetch(path, {
      method: "POST",
      headers: { "content-type": "application/json", ...(link && { "x-hogar-link": link }) },
      body: JSON.stringify(body),
    });
    return (await response.json()) as Result<T>;
  } catch {
    return { ok: false, problem: { code: "offline", sentence: problems.offline } };
  }
}
