import { defineModule } from "@/kernel/module";
import { dueJobs } from "./jobs";
import { giveBackRoom } from "./operations/give-back-room";
import { tryAgain } from "./operations/try-again";

export const dueModule = defineModule({
  name: "due",
  owns: [],
  operations: {
    "give-back-room": giveBackRoom,
    "try-again": tryAgain,
  },
  jobs: dueJobs,
});
