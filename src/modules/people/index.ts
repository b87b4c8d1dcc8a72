import { defineModule } from "@/kernel/module";
import { endOwnSession } from "./operations/end-own-session";
import { endSessions } from "./operations/end-sessions";
import { handIncoming } from "./operations/hand-incoming";
import { savePerson } from "./operations/save-person";
import { saveSecurity } from "./operations/save-security";
import { pruneSessions } from "./pruning";
import { account } from "./views/account";

export const peopleModule = defineModule({
  name: "people",
  owns: ["people", "sessions"],
  operations: {
    "end-own-session": endOwnSession,
    "end-sessions": endSessions,
    "hand-incoming": handIncoming,
    "save-person": savePerson,
    "save-security": saveSecurity,
  },
  views: {
    account,
  },
  prune: pruneSessions,
});
