import type { ViewOutput } from "@/api/client";
import type { ReactNode } from "react";

/** What set-up reads. */
export type SetupData = ViewOutput<"setup">;
export type MapData = ViewOutput<"zone-map">;
export type FirstStepsView = ViewOutput<"first-steps">;
export type Rules = SetupData["rules"];
/** A service as it is being typed. */
export type ServiceDraft = Omit<SetupData["services"][number], "id" | "promised"> & { id: number | null };
export interface Entry {
  id: number;
  name: string;
  sign?: ReactNode;
  detail: string;
}
export type Zone = SetupData["zones"][number];
export type Technician = SetupData["technicians"][number];
export type FrontDoorDraft = SetupData["frontDoor"];
