import type { WorkPlace } from "../visits/work-place";
import type { PromiseWindow } from "./promise-window";
import type { Reason } from "./reasons";

export interface OfferedTechnician {
  id: string;
  /** Minutes of work that day already. */
  load: number;
  /** Minutes, over all days of the work. */
  extraDriving: number;
  position: number;
  /** Earliest and latest feasible arrival on the first day, at the position with the least extra driving. */
  arrive: [number, number];
}

export interface Offer extends PromiseWindow {
  offered: true;
  /** Best first: least extra driving, then least loaded, then by id; a preferred technician before all. Of a crew of several, exactly the crew. */
  technicians: OfferedTechnician[];
  extraDriving: number;
  /** The common start of a crew of several. */
  meetAt: number | null;
  /** The following days of work of several days, with their common starts. */
  followingDays: (PromiseWindow & { meetAt: number | null })[];
  /** Where a time has several seats: how many are left before this booking, and the time that is joined (null: a new one). */
  seats?: { left: number; joins: string | null };
}

/** A neighbour window: somebody is near then anyway. Minutes of extra driving, for the whole crew and all days. Where nobody goes to the customer there is no way to be on. */
export const isOnOurWay = ({ extraDriving, technicians }: Offer, workPlace: WorkPlace): boolean =>
  workPlace === "site" && technicians.length > 0 && extraDriving <= 4;

export interface Refused extends PromiseWindow {
  offered: false;
  reasons: Reason[];
}

export type WindowAnswer = Offer | Refused;
