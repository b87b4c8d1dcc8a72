import { type VisitState, visitStates } from "./states";

/**
 * By how many minutes a visit begins after its promised window, as things stand: `arrives` is when somebody is planned
 * to be there, or will be after driving from where they are. 0 where it is in time, or where nobody is waited for any
 * more. All in minutes of the same clock.
 */
export const lateBy = (visit: { state: VisitState; windowTo: number; arrives: number }, now: number): number =>
  visitStates.allows("await", visit.state) ? Math.max(0, Math.max(now, visit.arrives) - visit.windowTo) : 0;
