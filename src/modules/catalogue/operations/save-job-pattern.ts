import { defineOperation } from "@/kernel/operation";
import { SaveJobPattern, storeJobPattern } from "../job-patterns";

export const saveJobPattern = defineOperation({
  name: "save-job-pattern",
  access: "setup.change",
  input: SaveJobPattern,
  run: (context, pattern) => ({ id: storeJobPattern(context, pattern) }),
});
