import { Refusal } from "@/core/problems";
import { Id, input, Name } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { copyLimits, saveRow } from "@/kernel/rows";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { SaveService } from "../inputs";
import { freeSlug, storeService } from "../saving-services";

const DuplicateService = input({ id: Id });
/** Categories in their order, each with its services in theirs; a category can be renamed by the way. */
const OrderServices = input({
  categories: Type.Array(input({ name: Name, was: Name, services: Type.Array(Id, { maxItems: 1000 }) }), {
    maxItems: 200,
  }),
});

export const saveService = defineOperation({
  name: "save-service",
  access: "setup.change",
  input: SaveService,
  run: storeService,
});

/** The same service once more, under another name and code, set aside until it is looked over. */
export const duplicateService = defineOperation({
  name: "duplicate-service",
  access: "setup.change",
  input: DuplicateService,
  run(context, { id }) {
    const { sql } = context;
    const row = sql<Record<string, string | number | null> & { name: string; code: string }>(
      "SELECT * FROM services WHERE id = ?",
    ).get(id);
    if (!row) throw new Refusal("not-found");
    const taken = (column: "name" | "code", value: string) =>
      sql(`SELECT 1 FROM services WHERE ${column} = ?`).get(value) !== undefined;
    let name = `${row.name}, copy`;
    for (let n = 2; taken("name", name); n++) name = `${row.name}, copy ${n}`;
    const code = codes(row.code).find((c) => !taken("code", c));
    if (!code) throw new Refusal("name-taken", { sentence: "Every two-letter code is in use. Give one free first." });
    const copy = {
      ...row,
      name,
      code,
      slug: freeSlug(context, name),
      active: 0,
      pattern_id: null,
      position: Number(row.position) + 1,
    } as Record<string, string | number | null>;
    delete copy.id;
    const newId = saveRow(context, "services", null, copy);
    for (const [table, columns] of Object.entries(belongings))
      sql(`INSERT INTO ${table} (service_id, ${columns}) SELECT ?, ${columns} FROM ${table} WHERE service_id = ?`).run(
        newId,
        id,
      );
    copyLimits(context, "service", id, newId);
    if (row.pattern_id !== null) {
      const pattern = insertRow(sql, "patterns", { name: `Windows of ${name} (${newId})` });
      sql(
        `INSERT INTO pattern_parts SELECT ?, position, kind, weekdays, from_minute, to_minute, length, step
          FROM pattern_parts WHERE pattern_id = ?`,
      ).run(pattern, row.pattern_id);
      sql("UPDATE services SET pattern_id = ? WHERE id = ?").run(pattern, newId);
    }
    return { id: newId };
  },
});

const belongings = {
  service_skills: "skill_id, level",
  service_hours: "weekday, opens, closes",
  service_extras: "extra_id, position, most",
  service_technicians: "technician_id",
};

/** Codes to try: with the first letter kept, then any. */
function* lettersFrom(first: string): Generator<string> {
  const letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";
  for (const second of letters) yield first + second;
  for (const a of letters) for (const b of letters) yield a + b;
}
const codes = (code: string): string[] => [...lettersFrom(code[0]!)];

/** Puts categories and the services in them into an order. */
export const orderServices = defineOperation({
  name: "order-services",
  access: "setup.change",
  input: OrderServices,
  run({ sql }, { categories }) {
    for (const { was } of categories)
      sql(
        "DELETE FROM categories WHERE name = ? AND NOT EXISTS (SELECT 1 FROM services WHERE category = categories.name)",
      ).run(was);
    for (const [position, { name, was, services }] of categories.entries()) {
      const tidy = name.trim();
      if (tidy !== was) {
        sql(
          `INSERT INTO categories (name, position, hue, kind) SELECT ?, position, hue, kind
            FROM categories WHERE name = ? ON CONFLICT DO NOTHING`,
        ).run(tidy, was);
        sql("UPDATE services SET category = ? WHERE category = ? COLLATE NOCASE").run(tidy, was);
        if (tidy.toLowerCase() !== was.toLowerCase()) sql("DELETE FROM categories WHERE name = ?").run(was);
        else sql("UPDATE categories SET name = ? WHERE name = ?").run(tidy, was);
      }
      sql("UPDATE categories SET position = ? WHERE name = ?").run(position, tidy);
      for (const [place, id] of services.entries()) sql("UPDATE services SET position = ? WHERE id = ?").run(place, id);
    }
  },
});
