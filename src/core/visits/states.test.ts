import fc from "fast-check";
import { type Approval, type JobState, jobStates } from "../jobs/states";
import { type FieldStep, furtherOf, nextStep, stepRefusal, type VisitState, visitStates } from "./states";

const today = "2027-03-09";
const agreed = { state: "agreed", approval: "given" } as const;
const promised = { state: "promised", date: today } as const;
const steps: FieldStep[] = ["on the way", "on site", "done", "no access"];

describe("a step in the field", () => {
  it("is taken from promised to done, one after the other", () => {
    const walked: VisitState[] = ["promised"];
    for (let step = nextStep("promised"); step; step = nextStep(step)) {
      expect(stepRefusal(step, { state: walked.at(-1)!, date: today }, agreed, today)).toBeNull();
      walked.push(step);
    }
    expect(walked).toEqual(["promised", "on the way", "on site", "done"]);
  });

  it("is refused while the booking waits for a person or for its deposit", () => {
    fc.assert(
      fc.property(
        fc.constantFrom<FieldStep>(...steps),
        fc.constantFrom<JobState>(...jobStates.states),
        fc.constantFrom<Approval>("given", "waiting", "proposed"),
        (step, state, approval) => {
          fc.pre(state !== "agreed" || approval !== "given");
          expect(stepRefusal(step, promised, { state, approval }, today)).toBe("not-agreed-yet");
        },
      ),
    );
  });

  it("is refused before the day of the visit, and not on it or after", () => {
    expect([
      stepRefusal("on the way", { ...promised, date: "2027-03-10" }, agreed, today),
      stepRefusal("on the way", promised, agreed, today),
      stepRefusal("on the way", { ...promised, date: "2027-03-08" }, agreed, today),
    ]).toEqual(["before-its-day", null, null]);
  });

  it("never leads out of what is over", () => {
    for (const step of steps)
      for (const state of ["done", "cancelled"] as const)
        expect(stepRefusal(step, { state, date: today }, agreed, today)).toBe("wrong-order");
  });
});

describe("states of visits", () => {
  it("are the further of what was taken and what is known", () => {
    expect([
      furtherOf("promised", "on site"),
      furtherOf("done", "on the way"),
      furtherOf("on the way", "no access"),
    ]).toEqual(["on site", "done", "no access"]);
  });

  it("are listed for queries as they stand in the table", () => {
    expect(visitStates.sql("under way")).toBe("('on the way', 'on site')");
  });
});
