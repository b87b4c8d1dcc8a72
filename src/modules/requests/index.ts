import { defineModule } from "@/kernel/module";
import { requestJobs } from "./jobs";
import { answerRequests, bookRequest, locateRequest, makeRequest } from "./operations/requests";
import { takeWish, withdrawWish } from "./operations/wishes";
import { wish } from "./views/wish";

export const requestsModule = defineModule({
  name: "requests",
  owns: ["requests"],
  operations: {
    "answer-requests": answerRequests,
    "book-request": bookRequest,
    "locate-request": locateRequest,
    "make-request": makeRequest,
    "take-wish": takeWish,
    "withdraw-wish": withdrawWish,
  },
  views: {
    wish,
  },
  jobs: requestJobs,
});
