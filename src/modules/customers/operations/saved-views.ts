import { standardViews } from "@/core/customers/filter";
import { Refusal } from "@/core/problems";
import { Id, input, Name } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { Filter } from "../inputs";

const SaveView = input({ name: Name, filter: Filter });
const RemoveView = input({ viewId: Id });

/** Keeps a filter of the list of customers under a name; one of that name is replaced. */
export const saveView = defineOperation({
  name: "save-view",
  access: "customers.change of all",
  about: { "filter.zoneId": "shared" },
  input: SaveView,
  run({ sql, now }, { name, filter }) {
    if (standardViews.some((view) => view.name.toLowerCase() === name.trim().toLowerCase()))
      throw new Refusal("name-taken", { fields: { "/name": "A view of this name is always there." } });
    insertRow(
      sql,
      "saved_views",
      { name: name.trim(), filter: JSON.stringify(filter), made_at: now },
      "ON CONFLICT (name) DO UPDATE SET filter = excluded.filter",
    );
    return sql<{ id: number }>("SELECT id FROM saved_views WHERE name = ?").get(name.trim())!;
  },
});

export const removeView = defineOperation({
  name: "remove-view",
  access: "customers.change of all",
  about: { viewId: "shared" },
  input: RemoveView,
  run({ sql }, { viewId }) {
    if (sql("DELETE FROM saved_views WHERE id = ?").run(viewId).changes === 0) throw new Refusal("not-found");
  },
});
