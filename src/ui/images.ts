import { passingProblems } from "@/core/passing-problems";
import type { Result } from "@/core/problems";

/** Where a picture that is kept is shown. */
export const imageAddress = (token: string): string => `/api/images/${token}`;

/** Sends a picture as it is; answers the token under which it is kept. */
export async function sendImage(purpose: string, file: File): Promise<Result<{ token: string }>> {
  try {
    const response = await fetch(`/api/images?purpose=${purpose}`, {
      method: "POST",
      headers: { "content-type": file.type.startsWith("image/") ? file.type : "image/png" },
      body: file,
    });
    return (await response.json()) as Result<{ token: string }>;
  } catch {
    return { ok: false, problem: { code: "offline", sentence: passingProblems.offline } };
  }
}
