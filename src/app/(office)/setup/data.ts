import type { ViewOutput } from "@/api/client";

/** What set-up reads. */
export type SetupData = ViewOutput<"setup">;
export type MapData = ViewOutput<"zone-map">;
export type FirstStepsView = ViewOutput<"first-steps">;
export type Rules = SetupData["rules"];
/** A service as it is being typed. */
export type ServiceDraft = Omit<SetupData["services"][number], "id" | "promised"> & { id: number | null };
