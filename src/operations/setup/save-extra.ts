import { SaveExtra } from "@/schemas/catalogue";
import { defineOperation } from "../door";
import { saveRow } from "./rows";

export const saveExtra = defineOperation({
  name: "save-extra",
  access: "setup.change",
  input: SaveExtra,
  run: (context, extra) => ({
    id: saveRow(context, "extras", extra.id, {
      name: extra.name.trim(),
      unit: extra.unit.trim(),
      price_minor: extra.priceMinor,
      cost_minor: extra.costMinor,
      tax_bp: extra.taxBp,
      active: extra.active ? 1 : 0,
    }),
  }),
});
