import { defineOperation } from "@/kernel/operation";
import { SaveFrontDoor } from "../inputs";
import { changeFrontDoor } from "../settings";

/** How the front door looks, what it says and asks, and who hears of bookings. */
export const saveFrontDoor = defineOperation({
  name: "save-front-door",
  access: "setup.change",
  input: SaveFrontDoor,
  run: changeFrontDoor,
});
