import { stateTable } from "../states";

export type JobState = "awaiting deposit" | "agreed" | "done" | "cancelled";
/** Where a booking stands with us: placed by itself or confirmed; waiting for a person; or another time proposed. */
export type Approval = "given" | "waiting" | "proposed";

export interface JobStanding {
  state: JobState;
  approval: Approval;
}

/** What can be done with a job. */
export type JobAct =
  /** Its visits may be driven to and worked on, and reminded of. */
  | "work"
  /** Room is kept for it, and it may still be ended. */
  | "stand";

export const jobStates = stateTable<JobState, JobAct>({
  "awaiting deposit": { next: ["agreed", "cancelled"], allows: ["stand"] },
  agreed: { next: ["done", "cancelled"], allows: ["work", "stand"] },
  done: { next: [], allows: [] },
  cancelled: { next: [], allows: [] },
});

/** Whether a job as it stands allows an act: what waits for a person is not worked on. */
export const jobAllows = (act: JobAct, { state, approval }: JobStanding): boolean =>
  jobStates.allows(act, state) && (act !== "work" || approval === "given");
