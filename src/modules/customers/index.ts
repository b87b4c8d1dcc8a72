import { defineModule } from "@/kernel/module";
import { forgetTraces } from "./effects";
import { archiveCustomer, eraseCustomer } from "./operations/archive-customer";
import { saveCustomer } from "./operations/save-customer";
import { removeView, saveView } from "./operations/saved-views";
import { archiveSite, saveSite } from "./operations/sites";
import { customerCards } from "./views/cards";
import { customer } from "./views/customer";
import { customerData } from "./views/customer-data";
import { customerChoices, customers } from "./views/customers";
import { find } from "./views/find";
import { sameAs } from "./views/same-as";

export const customersModule = defineModule({
  name: "customers",
  owns: [
    "customers",
    "sites",
    "customer_tags",
    "consents",
    "withheld",
    "possible_duplicates",
    "saved_views",
    "customer_search",
  ],
  operations: {
    "archive-customer": archiveCustomer,
    "archive-site": archiveSite,
    "erase-customer": eraseCustomer,
    "remove-view": removeView,
    "save-customer": saveCustomer,
    "save-site": saveSite,
    "save-view": saveView,
  },
  views: {
    customer,
    "customer-cards": customerCards,
    "customer-choices": customerChoices,
    "customer-data": customerData,
    customers,
    find,
    "same-as": sameAs,
  },
  effects: { "forget traces": forgetTraces },
});
