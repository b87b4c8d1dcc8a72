import type { ViewOutput } from "@/api/client";

type IncomingView = ViewOutput<"incoming">;
export type Entry = IncomingView["entries"][number];
