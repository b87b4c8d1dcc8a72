import type { ViewOutput } from "@/api/client";

export const threadShows = ["waiting", "mine", "unknown", "snoozed", "all"] as const;
export type ThreadShow = (typeof threadShows)[number];

/** Parts of the place. */
export const messageLists = ["conversations", "campaigns", "reviews", "log", "figures"] as const;
export type MessageList = (typeof messageLists)[number];

export type Thread = ViewOutput<"thread">;
export type Entry = Thread["entries"][number];

/** Where a conversation is shown. */
export const threadAddress = (show: ThreadShow, id: number | null): string =>
  `/messages?show=${show}${id === null ? "" : `&open=${id}`}`;
