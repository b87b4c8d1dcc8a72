import { defineModule } from "@/kernel/module";
import { repeatJobs } from "./jobs";
import { repeatLaws } from "./laws";
import { agreeRepeat } from "./operations/agree-repeat";
import { answerAsked, askNow, bookAgain, bookAskedByLink, leaveOutAsked } from "./operations/asks";
import { beginRepeatBatch, endRepeatBatch } from "./operations/batches";
import { agreeRepeatDate, changeRepeat, endPause, pauseRepeat, undoRepeatChange } from "./operations/changes";
import { moveRepeatVisit } from "./operations/move-repeat-visit";
import { endRepeat, lookForRoom, makeRepeat, promiseDate, resumeRepeat } from "./operations/repeats";
import { setAgain } from "./operations/set-again";
import { reviewRepeatPrice, setRepeatPrice, setRepeatWays, setRepeatWork } from "./operations/ways";
import { againOffers, ask, askOffers } from "./views/ask";
import { changeAhead } from "./views/change-ahead";
import { repeatBatches, repeatIds, repeatsProposal } from "./views/many";
import { repeatView } from "./views/repeat";
import { repeatBeginning } from "./views/repeat-beginning";
import { repeatCalendarView } from "./views/repeat-calendar";
import { repeatPlaces } from "./views/repeat-places";
import { repeats, repeatsOutlook } from "./views/repeats";

export const repeatsModule = defineModule({
  name: "repeats",
  owns: ["repeats", "repeat_asks", "repeat_batches", "repeat_exceptions", "repeat_pauses", "repeat_terms"],
  operations: {
    "agree-repeat": agreeRepeat,
    "agree-repeat-date": agreeRepeatDate,
    "answer-asked": answerAsked,
    "ask-now": askNow,
    "begin-repeat-batch": beginRepeatBatch,
    "book-again": bookAgain,
    "book-asked": bookAskedByLink,
    "change-repeat": changeRepeat,
    "end-pause": endPause,
    "end-repeat": endRepeat,
    "end-repeat-batch": endRepeatBatch,
    "leave-out-asked": leaveOutAsked,
    "look-for-room": lookForRoom,
    "make-repeat": makeRepeat,
    "move-repeat-visit": moveRepeatVisit,
    "pause-repeat": pauseRepeat,
    "promise-date": promiseDate,
    "resume-repeat": resumeRepeat,
    "review-repeat-price": reviewRepeatPrice,
    "set-again": setAgain,
    "set-repeat-price": setRepeatPrice,
    "set-repeat-ways": setRepeatWays,
    "set-repeat-work": setRepeatWork,
    "undo-repeat-change": undoRepeatChange,
  },
  views: {
    "again-offers": againOffers,
    ask,
    "ask-offers": askOffers,
    repeat: repeatView,
    "repeat-batches": repeatBatches,
    "repeat-beginning": repeatBeginning,
    "repeat-calendar": repeatCalendarView,
    "repeat-change-ahead": changeAhead,
    "repeat-ids": repeatIds,
    "repeat-places": repeatPlaces,
    repeats,
    "repeats-outlook": repeatsOutlook,
    "repeats-proposal": repeatsProposal,
  },
  jobs: repeatJobs,
  laws: repeatLaws,
});
