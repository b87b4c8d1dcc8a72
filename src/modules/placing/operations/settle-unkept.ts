import { Refusal } from "@/core/problems";
import { minuteOn } from "@/core/time/local";
import { visitStates } from "@/core/visits/states";
import { Id, input, OneOf } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { moveByHand } from "../by-hand";
import { takeOut } from "../days";
import { whoElse } from "../unkept";
import { daysOfWork, readVisit } from "../visits";

/** What becomes of a promise that a change of set-up has touched: kept all the same, taken off whoever was to come, or given to whoever can keep its window. */
export const settleUnkept = defineOperation({
  name: "settle-unkept",
  access: "board.change",
  about: { visitId: "visit" },
  input: input({ visitId: Id, how: OneOf(["keep", "tray", "other"]) }),
  run(context, { visitId, how }) {
    const { sql, business } = context;
    const visit = readVisit(context, visitId);
    const waits = sql("SELECT 1 FROM unkept_promises WHERE visit_id = ?").get(visitId);
    if (!waits || visit.state !== "promised") throw new Refusal("visit-not-open");
    if (how === "keep") {
      sql("UPDATE unkept_promises SET kept = 1 WHERE visit_id = ?").run(visitId);
      return;
    }
    if (how === "tray") {
      for (const { id, state } of daysOfWork(context, visit))
        if (visitStates.allows("plan", state)) takeOut(context, id);
    } else {
      const others = whoElse(context, visitId);
      if (!others)
        throw new Refusal("cannot-be-kept", {
          sentence: "Nobody else can keep this window. Choose another on the board.",
        });
      const clock = (epoch: number) => minuteOn(visit.date, epoch, business.time_zone);
      moveByHand(context, visit, {
        technicianIds: others.map(Number),
        date: visit.date,
        fromMinute: clock(visit.window_from),
        toMinute: clock(visit.window_to),
      });
    }
    sql("DELETE FROM unkept_promises WHERE visit_id = ?").run(visitId);
  },
});
