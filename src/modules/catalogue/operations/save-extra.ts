import { defineOperation } from "@/kernel/operation";
import { SaveExtra, storeExtra } from "../saving-extras";

export const saveExtra = defineOperation({
  name: "save-extra",
  access: "setup.change",
  input: SaveExtra,
  run: storeExtra,
});
