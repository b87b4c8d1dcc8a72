import { defineModule } from "@/kernel/module";
import { findAddress, typeAddress } from "./views/find-address";
import { townMap, whichZone, zoneMap } from "./views/zone-map";

export const placeModule = defineModule({
  name: "place",
  owns: ["zones", "zone_postcodes", "zone_technicians"],
  views: {
    "find-address": findAddress,
    "town-map": townMap,
    "type-address": typeAddress,
    "which-zone": whichZone,
    "zone-map": zoneMap,
  },
});
