import { openStore } from "@/store/database";
import { modules } from "./modules";

describe("the modules", () => {
  it("give every operation, view and effect one name, and call it by that", () => {
    for (const part of ["operations", "views", "effects"] as const) {
      const names = modules.flatMap((module) => Object.keys(module[part] ?? {}));
      expect([part, names.filter((name, i) => names.indexOf(name) !== i)]).toEqual([part, []]);
    }
    for (const { operations = {}, views = {} } of modules)
      for (const [name, one] of [...Object.entries(operations), ...Object.entries(views)]) expect(one.name).toBe(name);
  });

  it("own each table of the schema once, but for those of the kernel", () => {
    const kernel = [
      ...["audit", "audit_changes", "failed_work", "lanes", "limits", "links", "outbox", "plan_changes"],
      ...["security_events", "short_links", "tries", "worker_marks"],
    ];
    const tables = openStore(":memory:")
      .sql<{ name: string }>(
        `SELECT name FROM pragma_table_list
          WHERE schema = 'main' AND type IN ('table', 'virtual') AND name NOT LIKE 'sqlite%'`,
      )
      .all()
      .map(({ name }) => name);
    expect([...kernel, ...modules.flatMap(({ owns }) => owns)].toSorted()).toEqual(tables.toSorted());
  });
});
