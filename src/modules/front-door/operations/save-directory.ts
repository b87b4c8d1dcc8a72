import { type KindOfBusiness, kindsOfBusiness } from "@/core/catalogue/kinds";
import { input, Name, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { setCategoryKind } from "@/modules/catalogue/categories";

/** What directories are told: whether at all, and each category in their words. */
const SaveDirectory = input({
  listed: Type.Boolean(),
  kinds: Type.Array(input({ category: Name, kind: OrNull(OneOf(Object.keys(kindsOfBusiness) as KindOfBusiness[])) }), {
    maxItems: 200,
  }),
});

/** Whether directories may read what we do, and under which headings. */
export const saveDirectory = defineOperation({
  name: "save-directory",
  access: "setup.change",
  input: SaveDirectory,
  run(context, { listed, kinds }) {
    context.sql("UPDATE front_door SET listed = ?").run(listed ? 1 : 0);
    for (const { category, kind } of kinds) setCategoryKind(context, category, kind ?? "");
  },
});
