import { defineModule } from "@/kernel/module";
import { messageEffects } from "./effects";
import { messageJobs } from "./jobs";
import { messageNeeds } from "./needs";
import {
  matchThread,
  openThread,
  readThread,
  settleThread,
  snoozeThread,
  takeThread,
  writeByHand,
  writeNote,
} from "./operations/conversation";
import { askQuestion } from "./operations/receive";
import { resetTemplate, saveOccasion, saveSender, saveTemplate } from "./operations/save-occasion";
import { saveLanguage, saveStop, saveWithheld } from "./operations/save-reach";
import { saveMessageRules } from "./operations/save-rules";
import { sendNow } from "./operations/send-now";
import { sendTest } from "./operations/send-test";
import { settleLost } from "./operations/settle-lost";
import { stopByMessage } from "./operations/stop-by-message";
import { takeAsYes } from "./operations/take-as-yes";
import { messageFigures, messageLog } from "./views/message-log";
import { messageSetup, previewMessage, template } from "./views/message-setup";
import { thread, threads, visitNotes } from "./views/threads";

export const messagesModule = defineModule({
  name: "messages",
  owns: [
    "messages",
    "threads",
    "replies",
    "notes",
    "stops",
    "documents",
    "recordings",
    "templates",
    "occasions",
    "senders",
    "reminder_rules",
    "reminder_looks",
    "reminded",
  ],
  operations: {
    "ask-question": askQuestion,
    "match-thread": matchThread,
    "open-thread": openThread,
    "read-thread": readThread,
    "reset-template": resetTemplate,
    "save-language": saveLanguage,
    "save-message-rules": saveMessageRules,
    "save-occasion": saveOccasion,
    "save-sender": saveSender,
    "save-stop": saveStop,
    "save-template": saveTemplate,
    "save-withheld": saveWithheld,
    "send-now": sendNow,
    "send-test": sendTest,
    "settle-lost": settleLost,
    "settle-thread": settleThread,
    "snooze-thread": snoozeThread,
    "stop-by-message": stopByMessage,
    "take-as-yes": takeAsYes,
    "take-thread": takeThread,
    "write-by-hand": writeByHand,
    "write-note": writeNote,
  },
  views: {
    "message-figures": messageFigures,
    "message-log": messageLog,
    "message-setup": messageSetup,
    "preview-message": previewMessage,
    template,
    thread,
    threads,
    "visit-notes": visitNotes,
  },
  effects: messageEffects,
  jobs: messageJobs,
  needs: messageNeeds,
});
