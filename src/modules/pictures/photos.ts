import type { OperationContext, ViewContext } from "@/kernel/operation";

/** Whether a picture is kept here that a customer sent. */
export const isKeptPhoto = ({ sql }: ViewContext, token: string): boolean =>
  sql("SELECT 1 FROM images WHERE token = ? AND purpose = 'answer'").get(token) !== undefined;

/** Marks pictures as sent off with something: they count against nobody any more. */
export function claimPhotos({ sql }: OperationContext, tokens: readonly string[]): void {
  for (const token of tokens) sql("UPDATE images SET used = 1 WHERE token = ? AND used = 0").run(token);
}
export const lostPhoto = "A photo did not arrive. Remove it and add it again.";
