import { defineModule } from "@/kernel/module";
import { pictureJobs } from "./jobs";

export const picturesModule = defineModule({
  name: "pictures",
  owns: ["images"],
  jobs: pictureJobs,
});
