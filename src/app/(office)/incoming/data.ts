import type { ViewOutput } from "@/api/client";
import { firstPage } from "@/ui/first-page";

type IncomingView = ViewOutput<"incoming">;
export type Waiting = IncomingView["rows"][number];
/** What is dealt with here; repeats are on their own page, and only taken on here. */
export type Entry = Exclude<Waiting, { kind: "repeat" }>;
export const isEntry = (waiting: Waiting): waiting is Entry => waiting.kind !== "repeat";

/** What is open, by its key as it stands in the address. */
export function keyed(key: string | null): Pick<Entry, "kind" | "id"> | null {
  const [, kind, id] = /^(booking|request|quote) (\d+)$/.exec(key ?? "") ?? [];
  return kind ? { kind: kind as Entry["kind"], id: Number(id) } : null;
}

/** What has waited longest comes first. */
export const longestFirst = firstPage<"incoming">("at");
