import { defineModule } from "@/kernel/module";
import { bookingNeeds } from "./needs";
import { bookInOffice } from "./operations/book-in-office";
import { copyLink } from "./operations/copy-link";
import { holdOffer } from "./operations/hold-offer";
import { renewLink } from "./operations/renew-link";

export const bookingModule = defineModule({
  name: "booking",
  owns: [],
  operations: {
    "book-in-office": bookInOffice,
    "copy-link": copyLink,
    "hold-offer": holdOffer,
    "renew-link": renewLink,
  },
  needs: bookingNeeds,
});
