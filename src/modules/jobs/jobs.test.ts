import { type JobState, jobStates } from "@/core/jobs/states";
import { Refusal } from "@/core/problems";
import { type VisitState, visitStates } from "@/core/visits/states";
import type { OperationContext } from "@/kernel/operation";
import { viewContext } from "@/kernel/operation";
import { office, one, smallWorld } from "@demo/small-world";
import { setJobState } from "./work";
import { setVisitState } from "./visits";

/** Tries a change of state in a transaction that is taken back; answers whether it was let happen. */
function isAllowed(
  { hogar }: ReturnType<typeof smallWorld>,
  prepare: string,
  change: (context: OperationContext) => void,
): boolean {
  const { db, sql, audit } = hogar.store;
  db.exec("BEGIN");
  try {
    return audit.under({ at: hogar.now(), actor: "test", operation: "test" }, () => {
      sql(prepare).run();
      change({ ...viewContext(hogar, office), later: () => {} });
      return true;
    });
  } catch (error) {
    if (error instanceof Refusal) return false;
    throw error;
  } finally {
    db.exec("ROLLBACK");
  }
}

describe("the states of what was agreed", () => {
  it("a visit goes from each to each exactly as the table says", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    // What is held has no job yet: only with one is it promised (addJob), and a forecast is a repeat's.
    const asIt = (state: VisitState) =>
      `UPDATE visits SET state = '${state}'${state === "held" ? ", job_id = NULL, held_until = 1" : ""}`;
    const pairs = visitStates.states
      .filter((from) => from !== "forecast")
      .flatMap((from) => visitStates.states.filter((to) => to !== from).map((to) => [from, to] as const))
      .filter(([from, to]) => !(from === "held" && to === "promised"));
    for (const [from, to] of pairs)
      expect([from, to, isAllowed(world, asIt(from), (context) => setVisitState(context, visitId, to))]).toEqual([
        from,
        to,
        visitStates.follows(to, from),
      ]);
  });

  it("a job goes from each to each exactly as the table says", () => {
    const world = smallWorld();
    world.booked();
    const { id } = one<{ id: number }>(world.hogar, "SELECT id FROM jobs");
    const pairs = jobStates.states.flatMap((from) =>
      jobStates.states.filter((to) => to !== from).map((to) => [from, to] as const),
    );
    for (const [from, to] of pairs as (readonly [JobState, JobState])[])
      expect([
        from,
        to,
        isAllowed(world, `UPDATE jobs SET state = '${from}'`, (context) => setJobState(context, id, to)),
      ]).toEqual([from, to, jobStates.follows(to, from)]);
  });
});
