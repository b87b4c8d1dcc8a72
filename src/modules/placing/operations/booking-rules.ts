import { defineOperation } from "@/kernel/operation";
import { SaveBookingRules } from "@/modules/catalogue/inputs";
import { changeBookingRules } from "../booking-rules";

export const saveBookingRules = defineOperation({
  name: "save-booking-rules",
  access: "setup.change",
  input: SaveBookingRules,
  run: changeBookingRules,
});
