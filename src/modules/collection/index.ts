import { defineModule } from "@/kernel/module";
import { collectionJobs } from "./jobs";
import { collectionNeeds } from "./needs";
import {
  agreeCollection,
  answerObjection,
  beginRun,
  objectToCharge,
  promiseDay,
  recordCall,
  saveCollection,
  setCollection,
  setCustomerCollection,
  takeDownPromise,
} from "./operations/choices";
import { collection, collectionPlan, collectionRun, invoiceComing } from "./views/collection";

export const collectionModule = defineModule({
  name: "collection",
  owns: ["collection_items", "collection_notices", "collection_runs", "pay_promises", "money_calls"],
  operations: {
    "agree-collection": agreeCollection,
    "answer-objection": answerObjection,
    "begin-collection-run": beginRun,
    "object-to-charge": objectToCharge,
    "promise-payment": promiseDay,
    "record-call": recordCall,
    "record-promise": takeDownPromise,
    "save-collection": saveCollection,
    "set-collection": setCollection,
    "set-customer-collection": setCustomerCollection,
  },
  views: {
    collection,
    "collection-plan": collectionPlan,
    "collection-run": collectionRun,
    "invoice-coming": invoiceComing,
  },
  jobs: collectionJobs,
  needs: collectionNeeds,
});
