import { slugOf } from "@/core/people/sources";
import { Refusal } from "@/core/problems";
import { input, Name } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { renameSource } from "@/modules/jobs/work";

/** A source under which bookings are counted; its slug stays, since links bear it. */
const AddSource = input({ name: Name });
const RemoveSource = input({ slug: Type.String({ maxLength: 60 }) });

export const addSource = defineOperation({
  name: "add-source",
  access: "setup.change",
  input: AddSource,
  run(context, { name }) {
    const { sql, now } = context;
    const slug = slugOf(name);
    if (!slug) throw new Refusal("invalid-input", { fields: { "/name": "Give it a name with letters or figures." } });
    if (sql("SELECT 1 FROM sources WHERE slug = ? OR name = ?").get(slug, name.trim()))
      throw new Refusal("name-taken", { fields: { "/name": "There is one of this already. Choose another." } });
    insertRow(sql, "sources", { slug, name: name.trim(), made_at: now });
    // What came by this link before it was known counts from the beginning.
    renameSource(context, `other: ${slug}`, slug);
    return { slug };
  },
});

/** Counted as other from now on; nothing that was counted is lost. */
export const removeSource = defineOperation({
  name: "remove-source",
  access: "setup.change",
  input: RemoveSource,
  run(context, { slug }) {
    if (context.sql("DELETE FROM sources WHERE slug = ?").run(slug).changes === 0) throw new Refusal("not-found");
    renameSource(context, slug, `other: ${slug}`);
  },
});
