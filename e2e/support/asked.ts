// Read by Jest's global set-up too, which knows no path aliases.

/** Everybody's in the worlds of tests. */
export const password = "open the door";

/** Asks the pool (pool.ts) for something. */
export async function asked<T>(pool: string, what: "take" | "giveBack", about: string): Promise<T> {
  const response = await fetch(`${pool}/${what}`, { method: "POST", body: about });
  const { answer, error } = (await response.json()) as { answer: T; error?: string };
  if (error) throw new Error(error);
  return answer;
}
