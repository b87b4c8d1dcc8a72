import { defineModule, type Module } from "@/kernel/module";
import { stuckNeeds } from "./needs";
import { todayOf } from "./views/today";

/** The first screen asks the subjects what of theirs needs a person. */
export const todayModule = (subjects: readonly Module[]) =>
  defineModule({
    name: "today",
    owns: [],
    views: { today: todayOf([...subjects.flatMap(({ needs = [] }) => needs), ...stuckNeeds]) },
  });
