import { defineModule } from "@/kernel/module";
import { securityLog } from "./views/security-log";
import { whoDidWhat } from "./views/who-did-what";

export const recordsModule = defineModule({
  name: "records",
  owns: [],
  views: {
    "security-log": securityLog,
    "who-did-what": whoDidWhat,
  },
});
