import { defineModule } from "@/kernel/module";
import { quoteJobs } from "./jobs";
import { acceptQuote, bookQuote, declineQuote, putAwayQuotes } from "./operations/quotes";
import { sendQuote } from "./operations/send-quote";
import { quote, quoteOffers, quotePaper } from "./views/quote";
import { quoteDraft } from "./views/quote-draft";

export const quotesModule = defineModule({
  name: "quotes",
  owns: ["quotes"],
  operations: {
    "accept-quote": acceptQuote,
    "book-quote": bookQuote,
    "decline-quote": declineQuote,
    "put-away-quotes": putAwayQuotes,
    "send-quote": sendQuote,
  },
  views: {
    quote,
    "quote-draft": quoteDraft,
    "quote-offers": quoteOffers,
    "quote-paper": quotePaper,
  },
  jobs: quoteJobs,
});
