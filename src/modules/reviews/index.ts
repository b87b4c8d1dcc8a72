import { defineModule } from "@/kernel/module";
import { reviewJobs } from "./jobs";
import { reviewNeeds } from "./needs";
import { answerReview, goToReviewPlace, replyToReview, saveReviewRules, settleReview } from "./operations/reviews";
import { review, reviewFigures, reviewSetup, reviews } from "./views/reviews";

export const reviewsModule = defineModule({
  name: "reviews",
  owns: ["reviews", "review_places"],
  operations: {
    "answer-review": answerReview,
    "go-to-review-place": goToReviewPlace,
    "reply-to-review": replyToReview,
    "save-review-rules": saveReviewRules,
    "settle-review": settleReview,
  },
  views: {
    review,
    "review-figures": reviewFigures,
    "review-setup": reviewSetup,
    reviews,
  },
  jobs: reviewJobs,
  needs: reviewNeeds,
});
