import { SaveDirectory } from "@/schemas/setup";
import { defineOperation } from "../door";

/** Whether directories may read what we do, and under which headings. */
export const saveDirectory = defineOperation({
  name: "save-directory",
  access: "setup.change",
  input: SaveDirectory,
  run({ sql }, { listed, kinds }) {
    sql("UPDATE front_door SET listed = ?").run(listed ? 1 : 0);
    for (const { category, kind } of kinds)
      sql("UPDATE categories SET kind = ? WHERE name = ?").run(kind ?? "", category);
  },
});
