import type { ViewOutput } from "@/api/client";

/** What the front door reads. */
export type Business = ViewOutput<"front-door">;
export type ServicesAt = ViewOutput<"services-at">;
export type Offer = ViewOutput<"offers">["windows"][number];
