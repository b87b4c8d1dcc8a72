/** Requests as a page of ours sends them, or as somebody else would: without a browser. */
export interface Answer<T = unknown> {
  status: number;
  ok: boolean;
  value: T;
  problem?: { code: string; sentence: string; fields?: Record<string, string>; details?: unknown };
  headers: Headers;
}

export async function post<T = unknown>(
  url: string,
  body: unknown,
  headers: Record<string, string> = {},
): Promise<Answer<T>> {
  const response = await fetch(url, {
    method: "POST",
    headers: { "content-type": "application/json", ...headers },
    body: typeof body === "string" ? body : JSON.stringify(body),
  });
  const answer = (await response.json().catch(() => ({}))) as Pick<Answer<T>, "ok" | "value" | "problem">;
  return { status: response.status, headers: response.headers, ...answer };
}

/** Cookies of an answer, as a browser would send them back. */
export const cookiesOf = (answer: { headers: Headers }): string =>
  answer.headers
    .getSetCookie()
    .map((cookie) => cookie.split(";")[0])
    .join("; ");

/** Signs somebody of the demo in; answers the headers of their requests. */
export async function as(url: string, who: string, password = "open the door"): Promise<{ cookie: string }> {
  const answer = await post(`${url}/api/session`, { mail: `${who}@marrowick.example`, password });
  if (!answer.ok) throw new Error(`${who} could not sign in: ${answer.problem?.sentence}`);
  return { cookie: cookiesOf(answer) };
}

/** The address of a customer's own page, as the office copies it. */
export async function linkOf(url: string, jobId: number): Promise<string> {
  const answer = await post<{ address: string }>(`${url}/api/operations/copy-link`, { jobId }, await as(url, "odile"));
  if (!answer.ok) throw new Error(answer.problem?.sentence);
  return url + new URL(answer.value.address).pathname;
}
