import { defineModule } from "@/kernel/module";
import {
  addByLink,
  answerByLink,
  cancelByLink,
  confirmByLink,
  consentByLink,
  goAgainByLink,
  moveByLink,
  repeatByLink,
} from "./operations/by-link";
import { changeDateByLink, endPauseByLink, pauseByLink, restoreDateByLink } from "./operations/own-dates";
import { enterCodeByLink, sendCodeByLink } from "./operations/proof";
import { withholdByLink } from "./operations/withhold-by-link";
import { myDateOffers, myDates, myRepeatCalendar } from "./views/my-dates";
import { customersPage, myCalendar, myOffers, myVisit } from "./views/my-visit";

export const myVisitModule = defineModule({
  name: "my-visit",
  owns: [],
  operations: {
    "add-by-link": addByLink,
    "answer-by-link": answerByLink,
    "cancel-by-link": cancelByLink,
    "change-date-by-link": changeDateByLink,
    "confirm-by-link": confirmByLink,
    "consent-by-link": consentByLink,
    "end-pause-by-link": endPauseByLink,
    "enter-code-by-link": enterCodeByLink,
    "go-again-by-link": goAgainByLink,
    "move-by-link": moveByLink,
    "pause-by-link": pauseByLink,
    "repeat-by-link": repeatByLink,
    "restore-date-by-link": restoreDateByLink,
    "send-code-by-link": sendCodeByLink,
    "withhold-by-link": withholdByLink,
  },
  views: {
    "customers-page": customersPage,
    "my-calendar": myCalendar,
    "my-date-offers": myDateOffers,
    "my-dates": myDates,
    "my-offers": myOffers,
    "my-repeat-calendar": myRepeatCalendar,
    "my-visit": myVisit,
  },
});
