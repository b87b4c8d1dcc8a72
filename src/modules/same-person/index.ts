import { defineModule } from "@/kernel/module";
import { keepApart, mergeCustomers, splitCustomers } from "./operations/same-person";
import { mergingTerms, possibleDuplicates } from "./views/same-person";

export const samePersonModule = defineModule({
  name: "same-person",
  owns: [],
  operations: {
    "keep-apart": keepApart,
    "merge-customers": mergeCustomers,
    "split-customers": splitCustomers,
  },
  views: {
    "merging-terms": mergingTerms,
    "possible-duplicates": possibleDuplicates,
  },
});
