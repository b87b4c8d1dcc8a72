import type { ViewContext } from "@/kernel/operation";

/** Whether a picture is kept here that a customer sent. */
export const isKeptPhoto = ({ sql }: ViewContext, token: string): boolean =>
  sql("SELECT 1 FROM images WHERE token = ? AND purpose = 'answer'").get(token) !== undefined;
export const lostPhoto = "A photo did not arrive. Take it away and add it again.";
