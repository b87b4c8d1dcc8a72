import { defineModule } from "@/kernel/module";
import { moveClock } from "./operations/move-clock";
import { saveBusiness } from "./operations/save-business";

export const businessModule = defineModule({
  name: "business",
  owns: ["business", "tax_rates", "text_blocks"],
  operations: {
    "move-clock": moveClock,
    "save-business": saveBusiness,
  },
});
