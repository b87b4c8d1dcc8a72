import type { ViewOutput } from "@/api/client";

/** What the board reads. */
export type BoardDay = ViewOutput<"board">;
export type BoardStop = BoardDay["technicians"][number]["stops"][number];
export type BoardVisit = Omit<BoardDay["tray"][number], "best">;
export type PlacementOptions = ViewOutput<"placement-options">;
export type VisitDetails = ViewOutput<"visit-sheet">;

/** What is held, from the moment it is touched. */
export interface Held {
  visit: BoardVisit | null;
}
