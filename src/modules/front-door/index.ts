import { defineModule } from "@/kernel/module";
import { book } from "./operations/book";
import { saveDirectory } from "./operations/save-directory";
import { saveFrontDoor } from "./operations/save-front-door";
import { addSource, removeSource } from "./operations/sources";
import {
  businessForSearch,
  checkBooker,
  checkCoupon,
  frontDoor,
  offers,
  previewFrontDoor,
  servicesAt,
} from "./views/front-door";
import { sharing } from "./views/sharing";

export const frontDoorModule = defineModule({
  name: "front-door",
  owns: ["front_door", "sources"],
  operations: {
    "add-source": addSource,
    book,
    "remove-source": removeSource,
    "save-directory": saveDirectory,
    "save-front-door": saveFrontDoor,
  },
  views: {
    "business-for-search": businessForSearch,
    "check-booker": checkBooker,
    "check-coupon": checkCoupon,
    "front-door": frontDoor,
    offers,
    "preview-front-door": previewFrontDoor,
    "services-at": servicesAt,
    sharing,
  },
});
