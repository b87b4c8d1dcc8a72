import { defineModule } from "@/kernel/module";
import { bookingLaws } from "./laws";
import { bookingNeeds } from "./needs";
import { bookInOffice } from "./operations/book-in-office";
import { copyLink } from "./operations/copy-link";
import { holdOffer } from "./operations/hold-offer";
import { renewLink } from "./operations/renew-link";

export const bookingModule = defineModule({
  name: "booking",
  owns: ["jobs", "job_items", "job_lines", "visits", "promises", "additions"],
  operations: {
    "book-in-office": bookInOffice,
    "copy-link": copyLink,
    "hold-offer": holdOffer,
    "renew-link": renewLink,
  },
  needs: bookingNeeds,
  laws: bookingLaws,
});
