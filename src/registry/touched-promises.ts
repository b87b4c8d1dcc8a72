import { checkInput } from "@/kernel/check-input";
import { input, OneOf } from "@/kernel/inputs";
import type { Operation } from "@/kernel/operation";
import { rehearse } from "@/kernel/rehearse";
import { defineView } from "@/kernel/view";
import { namesOf } from "@/modules/placing/windows";
import { unkeptPromises, whoElse } from "@/modules/placing/unkept";
import { Type } from "@sinclair/typebox";
import { promisingOperations } from "./promising";

/** So many are named; of all others it is said how many there are. */
const mostNamed = 60;

/** Promises that could not be kept if a change of set-up were made: it is made, looked at, and taken back. With who else could keep each, in the window that was promised. */
export const touchedPromises = defineView({
  name: "touched-promises",
  access: "setup.change",
  input: input({
    operation: OneOf(Object.keys(promisingOperations) as (keyof typeof promisingOperations)[]),
    change: Type.Unknown(),
  }),
  read(context, { operation: name, change }) {
    const operation = promisingOperations[name] as unknown as Operation;
    const checked = checkInput(operation.input, change);
    const before = new Set(unkeptPromises(context, Infinity).first.map(({ visitId }) => visitId));
    return rehearse(
      context,
      (trial) => operation.run(trial, checked),
      (rehearsed) => {
        const touched = unkeptPromises(rehearsed, Infinity).first.filter(({ visitId }) => !before.has(visitId));
        const names = namesOf(rehearsed);
        return {
          n: touched.length,
          promises: touched.slice(0, mostNamed).map((one) => {
            const other = one.isPersonal ? whoElse(rehearsed, one.visitId) : null;
            return { ...one, other: other && other.map((id) => names.technician(id)).join(" and ") };
          }),
        };
      },
    );
  },
});
