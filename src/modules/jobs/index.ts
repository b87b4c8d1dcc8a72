import { defineModule } from "@/kernel/module";
import { jobLaws } from "./laws";

/** What was agreed: jobs with their items, their lines and their visits, and what was promised of each. */
export const jobsModule = defineModule({
  name: "jobs",
  owns: ["jobs", "job_items", "job_lines", "visits", "promises", "additions"],
  laws: jobLaws,
});
