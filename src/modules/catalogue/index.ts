import { defineModule } from "@/kernel/module";
import { changePrices, setPrices } from "./operations/prices";
import { saveCoupon } from "./operations/save-coupon";
import { saveExtra } from "./operations/save-extra";
import { saveJobPattern } from "./operations/save-job-pattern";
import { duplicateService, orderServices } from "./operations/save-service";
import { priceHistory } from "./views/price-history";

export const catalogueModule = defineModule({
  name: "catalogue",
  owns: [
    "services",
    "service_extras",
    "service_hours",
    "service_skills",
    "service_technicians",
    "extras",
    "categories",
    "patterns",
    "pattern_parts",
    "coupons",
    "job_patterns",
    "skills",
  ],
  operations: {
    "change-prices": changePrices,
    "duplicate-service": duplicateService,
    "order-services": orderServices,
    "save-coupon": saveCoupon,
    "save-extra": saveExtra,
    "save-job-pattern": saveJobPattern,
    "set-prices": setPrices,
  },
  views: {
    "price-history": priceHistory,
  },
});
