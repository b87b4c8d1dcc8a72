import { customersCsv } from "@/core/customers/cards";
import { everybody } from "@/core/customers/filter";
import type { ImportKind } from "@/core/imports/fields";
import { matchColumns } from "@/core/imports/match-columns";
import { readFile } from "@/core/imports/read-file";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { personActor } from "@/core/people/permissions";
import { eraseCustomer } from "@/modules/customers/operations/archive-customer";
import { customerCards } from "@/modules/customers/views/cards";
import { firstPage } from "@/ui/first-page";
import { runDue } from "@/worker/loop";
import { prune } from "@/worker/pruning";
import { office, one, saidOf, smallWorld, system } from "@demo/small-world";
import fc from "fast-check";
import {
  addImportRows,
  beginImport,
  changeImportRow,
  decideImportRows,
  dropImport,
  stopImport,
  takeImport,
  undoImport,
} from "./operations/imports";
import { goOnWithImport } from "./operations/go-on-with-import";
import { importRows, imports, oneImport } from "./views/imports";

type World = ReturnType<typeof smallWorld>;

/** Reads a file and has it looked over, as the screen does. */
async function begun(world: World, text: string | Uint8Array, kind: ImportKind = "customers"): Promise<number> {
  const read = readFile(typeof text === "string" ? new TextEncoder().encode(text) : text);
  if (!read.ok) throw new Error(read.sentence);
  const { rows } = read.table;
  const columns = matchColumns(kind, read.table);
  const { id } = mustPerform(
    world.hogar,
    beginImport,
    { kind, file: "file.csv", columns, rowCount: rows.length },
    office,
  );
  mustPerform(world.hogar, addImportRows, { importId: id, from: 1, rows }, office);
  await runDue(world.hogar);
  return id;
}
const take = async (world: World, importId: number) => {
  mustPerform(world.hogar, takeImport, { importId }, office);
  await runDue(world.hogar);
};
const undo = async (world: World, importId: number) => {
  mustPerform(world.hogar, undoImport, { importId }, office);
  await runDue(world.hogar);
};
const rowsOf = (world: World, importId: number) => {
  const view = look(world.hogar, importRows, { ...firstPage<"import-rows">("number"), importId, show: "all" }, office);
  if (!view.ok) throw new Error(view.problem.sentence);
  return view.value.rows;
};
const seen = (world: World, importId: number) => {
  const view = look(world.hogar, oneImport, { importId }, office);
  if (!view.ok) throw new Error(view.problem.sentence);
  return view.value;
};
const cards = (world: World) => {
  const view = look(world.hogar, customerCards, { ...firstPage<"customers">("name"), filter: everybody }, office);
  if (!view.ok) throw new Error(view.problem.sentence);
  return view.value.rows;
};
const names = (world: World) => cards(world).map((card) => card.name);

describe("an import of customers", () => {
  const head = "Name;Email;Phone;Address;Postcode;Tags\n";

  it("takes nothing before somebody says so, then what is right, with its site in its zone", async () => {
    const world = smallWorld();
    const [first] = world.addresses;
    const id = await begun(
      world,
      `${head}Anton Vale;anton@example.com;+1 202 555 0143;${first!.line};${first!.postcode};gas\nTilda Moss;tilda at home;;;;\n;nobody@example.com;;;;\nSelma Quill;;;1 Nowhere;ZZ 999;`,
    );
    expect([names(world), seen(world, id).state]).toEqual([[], "checked"]);
    expect(rowsOf(world, id).map((row) => [row.verdict, row.problems.map((p) => p.field)])).toEqual([
      ["new", []],
      ["wrong", ["mail"]],
      ["wrong", ["name"]],
      ["wrong", ["postcode"]],
    ]);
    await take(world, id);
    expect(cards(world)).toMatchObject([{ name: "Anton Vale", tags: ["gas"], sites: [{ line: first!.line }] }]);
    expect(one(world.hogar, "SELECT z.name FROM sites s JOIN zones z ON z.id = s.zone_id")).toEqual({
      name: "Harbourside",
    });
    expect(seen(world, id)).toMatchObject({ state: "taken", counts: { done: 1, wrong: 3 } });
  });

  it("leaves an address as it was written, unless the look-up knows exactly that one; what it has instead stands beside it", async () => {
    const world = smallWorld();
    const [first] = world.addresses;
    const [number, ...street] = first!.line.split(" ");
    const lines = [
      `${number}0 ${street.join(" ")}`,
      street.join(" "),
      `${number}a ${street.join(" ")}`,
      first!.line.toUpperCase(),
    ];
    const id = await begun(
      world,
      head + lines.map((line, i) => `Customer ${i};c${i}@example.com;;${line};${first!.postcode};`).join("\n"),
    );
    const details = rowsOf(world, id).map((row) => row.details.join(" | "));
    expect(details[0]).toContain("the look-up knows: ");
    expect(details[3]).not.toContain("the look-up knows: ");
    await take(world, id);
    expect(cards(world).map(({ sites }) => sites[0]!.line)).toEqual([...lines.slice(0, 3), first!.line]);
  });

  it("looks a row over again that somebody corrects", async () => {
    const world = smallWorld();
    const id = await begun(world, `${head}Tilda Moss;tilda at home;;;;`);
    mustPerform(
      world.hogar,
      changeImportRow,
      { importId: id, number: 1, cells: ["Tilda Moss", "tilda@example.com", "", "", "", ""] },
      office,
    );
    expect(rowsOf(world, id)).toMatchObject([{ verdict: "new", problems: [], decision: "take" }]);
    await take(world, id);
    expect(names(world)).toEqual(["Tilda Moss"]);
  });

  it("joins who is certainly known, filling only what is empty, and asks about who may be", async () => {
    const world = smallWorld();
    world.booked({ as: system });
    const id = await begun(
      world,
      `${head}Mira Okonjo;other@example.com;+1 555 0142;;;yearly\nAnton Okonjo;mira@example.com;;;;\nTilda Moss;tilda@example.com;;;;`,
    );
    expect(rowsOf(world, id).map((row) => [row.verdict, row.same?.name, row.decision])).toEqual([
      ["certain", "Mira Okonjo", "join"],
      ["likely", "Mira Okonjo", null],
      ["new", undefined, "take"],
    ]);
    expect(saidOf(perform(world.hogar, takeImport, { importId: id }, office))).toBe(
      "One row waits for your decision: join, keep apart or leave out.",
    );
    mustPerform(world.hogar, decideImportRows, { importId: id, verdict: "likely", decision: "take" }, office);
    mustPerform(world.hogar, decideImportRows, { importId: id, numbers: [3], decision: "leave out" }, office);
    await take(world, id);
    expect(cards(world)).toMatchObject([
      { name: "Anton Okonjo" },
      { name: "Mira Okonjo", mail: "mira@example.com", tags: ["yearly"] },
    ]);
  });

  it("knows two rows of one file as one, and gives them both sites", async () => {
    const world = smallWorld();
    const [first, second] = world.addresses;
    const row = (address: typeof first) => `Anton Vale;anton@example.com;;${address!.line};${address!.postcode};\n`;
    const id = await begun(world, head + row(first) + row(second));
    expect(rowsOf(world, id).map((r) => [r.verdict, r.sameRow])).toEqual([
      ["new", null],
      ["certain", 1],
    ]);
    await take(world, id);
    expect(cards(world)).toMatchObject([
      { name: "Anton Vale", sites: [{ line: first!.line }, { line: second!.line }] },
    ]);
  });

  it("is undone as a whole: who is new goes, who was known is as before; who was used since stays", async () => {
    const world = smallWorld();
    world.booked({ as: system });
    const before = cards(world);
    const [first] = world.addresses;
    const id = await begun(
      world,
      `${head}Mira Okonjo;;+1 555 0142;${first!.line};${first!.postcode};yearly\nTilda Moss;tilda@example.com;;;;\nAnton Vale;anton@example.com;;;;`,
    );
    await take(world, id);
    world.booked({ as: system, nth: 12, name: "Tilda Moss", more: {} });
    await undo(world, id);
    expect(seen(world, id)).toMatchObject({ state: "undone", counts: { done: 1, kept: 1 } });
    expect(cards(world)).toEqual([...before, expect.objectContaining({ name: "Tilda Moss" })]);
  });

  it("is stopped and gone on with, and taken once however often it is said", async () => {
    const world = smallWorld();
    const rows = Array.from({ length: 30 }, (_, i) => `Person ${i} Vale;p${i}@example.com;;;;`);
    const id = await begun(world, head + rows.join("\n"));
    mustPerform(world.hogar, takeImport, { importId: id }, office);
    mustPerform(world.hogar, goOnWithImport, { importId: id, most: 10 }, system);
    const { length: taken } = names(world);
    mustPerform(world.hogar, stopImport, { importId: id }, office);
    await runDue(world.hogar);
    // Ten at most: a turn of writing that takes long ends before.
    expect([taken > 0 && taken <= 10, names(world).length, seen(world, id).state]).toEqual([true, taken, "stopped"]);
    await take(world, id);
    expect(new Set(names(world)).size).toBe(30);
    expect(saidOf(perform(world.hogar, takeImport, { importId: id }, office))).toContain("taken already");
  });

  it("takes a wrong row that is mended after the others are in", async () => {
    const world = smallWorld();
    const id = await begun(world, head + "Ada Vale;ada@example.com;;;;\nBea Vale;bea at home;;;;");
    await take(world, id);
    expect([names(world), seen(world, id).counts.wrong]).toEqual([["Ada Vale"], 1]);
    const cells = ["Bea Vale", "bea@example.com", "", "", "", ""];
    mustPerform(world.hogar, changeImportRow, { importId: id, number: 2, cells }, office);
    await take(world, id);
    expect(names(world).toSorted()).toEqual(["Ada Vale", "Bea Vale"]);
  });

  it("says who brought it, in the record of every change", async () => {
    const world = smallWorld();
    const id = await begun(world, `${head}Anton Vale;anton@example.com;;;;`);
    await take(world, id);
    expect(
      one(
        world.hogar,
        "SELECT a.actor FROM audit a JOIN audit_changes c ON c.audit_id = a.id WHERE c.entity = 'customers'",
      ),
    ).toEqual({ actor: `system import ${id} of Odile Brandt` });
  });

  it("goes on behind a row with which something goes wrong that nobody thought of", async () => {
    jest.spyOn(console, "error").mockImplementation(() => {});
    const world = smallWorld();
    const id = await begun(world, `${head}Anton Vale;anton@example.com;;;;\nTilda Moss;tilda@example.com;;;;`);
    world.hogar.store.db.exec(
      "CREATE TEMP TRIGGER no_anton BEFORE INSERT ON main.customers WHEN NEW.name LIKE 'Anton%' BEGIN SELECT RAISE(ABORT, 'no'); END",
    );
    await take(world, id);
    expect(names(world)).toEqual(["Tilda Moss"]);
    expect(rowsOf(world, id)[0]).toMatchObject({ verdict: "wrong", madeId: null });
    expect(seen(world, id)).toMatchObject({ state: "taken", counts: { done: 1, wrong: 1 } });
  });

  it("leaves nothing of whom was imported and then erased, and the catalogue's rows where they are", async () => {
    const world = smallWorld();
    await begun(world, "Service;Price;Minutes\nChimney sweep;85;60\n", "services");
    const id = await begun(world, `${head}Anton Vale;anton@example.com;(202) 555-0143;;;`);
    await take(world, id);
    mustPerform(world.hogar, eraseCustomer, { customerId: 1 }, office);
    const left = ["SELECT count(*) AS n FROM import_rows", "SELECT count(*) AS n FROM import_keys WHERE import_id = 2"];
    expect(left.map((query) => one<{ n: number }>(world.hogar, query).n)).toEqual([1, 0]);
  });

  it("of the catalogue is for whoever sets up, of customers for whoever changes all of them", () => {
    const world = smallWorld();
    const dispatcher = personActor({ id: 2, name: "Tomas Quill", role: "dispatcher", technicianId: null });
    const columns = {
      names: ["Name", "Price", "Min"],
      fields: ["name", "price", "minutes"],
      dates: "day first" as const,
    };
    const begin = (kind: ImportKind, fields: string[]) =>
      perform(
        world.hogar,
        beginImport,
        { kind, file: "a.csv", columns: { ...columns, fields }, rowCount: 1 },
        dispatcher,
      );
    expect(begin("services", columns.fields)).toMatchObject({ problem: { code: "not-allowed" } });
    expect(begin("customers", ["name", "mail", "phone"]).ok).toBe(true);
    expect(look(world.hogar, imports, {}, dispatcher)).toMatchObject({ value: { kinds: ["customers", "repeats"] } });
  });

  it("is thrown away before anything was taken, and not after; its rows are let go a month later", async () => {
    const world = smallWorld();
    const dropped = await begun(world, `${head}Anton Vale;anton@example.com;;;;`);
    mustPerform(world.hogar, dropImport, { importId: dropped }, office);
    const taken = await begun(world, `${head}Anton Vale;anton@example.com;;;;`);
    await take(world, taken);
    expect(saidOf(perform(world.hogar, dropImport, { importId: taken }, office))).not.toBe("done");
    world.later(31 * 1440);
    prune(world.hogar, performance.now() + 10_000);
    expect(look(world.hogar, imports, {}, office)).toMatchObject({ value: { latest: [] } });
    expect([names(world), one(world.hogar, "SELECT count(*) AS n FROM import_rows")]).toEqual([
      ["Anton Vale"],
      { n: 0 },
    ]);
  });

  it("of any cells never throws, and takes no row that it has called wrong", async () => {
    const cell = fc.oneof(
      fc.string({ unit: "binary", maxLength: 12 }),
      fc.constantFrom("Mira Okonjo", "mira@example.com", "+1 555 0142", "MW 101", "=1+1", "", '"', ";"),
    );
    const world = smallWorld();
    await fc.assert(
      fc.asyncProperty(fc.array(fc.array(cell, { maxLength: 6 }), { minLength: 1, maxLength: 8 }), async (rows) => {
        const text = head + rows.map((row) => row.map((c) => `"${c.replaceAll('"', '""')}"`).join(";")).join("\n");
        const read = readFile(new TextEncoder().encode(text));
        if (!read.ok) return;
        const before = names(world).length;
        const id = await begun(world, text);
        const wrong = rowsOf(world, id).filter((row) => row.verdict === "wrong");
        mustPerform(world.hogar, decideImportRows, { importId: id, verdict: "likely", decision: "take" }, office);
        await take(world, id);
        const after = rowsOf(world, id);
        expect(wrong.every((row) => after.find((r) => r.number === row.number)!.madeId === null)).toBe(true);
        expect(names(world).length - before).toBeLessThanOrEqual(after.filter((r) => r.verdict !== "wrong").length);
      }),
      { numRuns: 40 },
    );
  });

  it("of what was exported gives the same customers", async () => {
    const world = smallWorld();
    const [first, second] = world.addresses;
    const id = await begun(
      world,
      `Name;Email;Phone;Address;Postcode;Tags;Bill to;Days to pay;Internal notes;Customer since;Offers\nAnton Vale;anton@example.com;;${first!.line};${first!.postcode};"gas, old";Quay Agents;30;=late;9/3/2024;yes\nAnton Vale;anton@example.com;;${second!.line};${second!.postcode};;;;;;\nTilda Moss;;;;;;;;;;`,
    );
    await take(world, id);
    const exported = cards(world);
    const other = smallWorld();
    await take(other, await begun(other, customersCsv(exported)));
    expect(cards(other)).toEqual(exported);
  });
});

describe("an import of the catalogue", () => {
  it("makes services with categories and codes, changes those that are known, and is undone", async () => {
    const world = smallWorld();
    const id = await begun(
      world,
      "Service,Category,Price,Duration\nGutter clean,Outside,€ 95.00,1:30\nChimney sweep,Sweeping,85,60\nNothing,,,\n",
      "services",
    );
    expect(rowsOf(world, id).map((row) => [row.verdict, row.decision])).toEqual([
      ["new", "take"],
      ["certain", "join"],
      ["wrong", null],
    ]);
    await take(world, id);
    const services = () =>
      world.hogar.store
        .sql(
          "SELECT name, code, category, price_minor, minutes FROM services WHERE name LIKE 'C%sweep' OR name LIKE 'G%' ORDER BY name",
        )
        .all();
    expect(services()).toEqual([
      { name: "Chimney sweep", code: "SW", category: "Sweeping", price_minor: 8500, minutes: 60 },
      { name: "Gutter clean", code: "GU", category: "Outside", price_minor: 9500, minutes: 90 },
    ]);
    await undo(world, id);
    expect(services()).toEqual([
      { name: "Chimney sweep", code: "SW", category: "Sweeping", price_minor: 7900, minutes: 60 },
    ]);
  });

  it("makes extras, and sets new prices of both", async () => {
    const world = smallWorld();
    await take(world, await begun(world, "Part;Unit;Price;Cost\nCowl;piece;60;31,50\n", "extras"));
    const id = await begun(world, "Item;New price\nCowl;64\nChimney sweep;82\nUnheard of;1\n", "prices");
    expect(rowsOf(world, id).map((row) => row.problems.map((p) => p.sentence))).toEqual([
      [],
      [],
      ["No service or extra is called “Unheard of”."],
    ]);
    await take(world, id);
    const price = (table: string, name: string) =>
      one<{ price_minor: number }>(world.hogar, `SELECT price_minor FROM ${table} WHERE name = ?`, name).price_minor;
    expect([price("extras", "Cowl"), price("services", "Chimney sweep")]).toEqual([6400, 8200]);
    expect(one(world.hogar, "SELECT cost_minor, unit FROM extras")).toEqual({ cost_minor: 3150, unit: "piece" });
    await undo(world, id);
    expect([price("extras", "Cowl"), price("services", "Chimney sweep")]).toEqual([6000, 7900]);
  });
});

describe("repeats from a file", () => {
  const file = [
    "Client;Street;Job;Frequency;Start;Time;Worker;Fee",
    "Mira Okonjo;;Chimney sweep;every 4 weeks;24.03.2027;9-11;Bram;75",
    "Mira Okonjo;;SW;every now and then;24.03.2027;9-11;;",
    "Nobody Known;;Chimney sweep;monthly;;;;",
  ].join("\n");

  it("are found, told row by row, taken, laid out, and taken back", async () => {
    const world = smallWorld();
    world.booked();
    const importId = await begun(world, file, "repeats");
    expect(rowsOf(world, importId).map(({ problems }) => problems.map((p) => p.field))).toEqual([
      [],
      ["rule"],
      ["name"],
    ]);
    await take(world, importId);
    for (let i = 0; i < 3; i++) await runDue(world.hogar);
    const repeat = one<object>(
      world.hogar,
      "SELECT rule, start_date, from_minute, price_per, price_minor, (SELECT name FROM technicians WHERE id = technician_id) AS who FROM repeats",
    );
    expect(repeat).toEqual({
      rule: "FREQ=WEEKLY;INTERVAL=4",
      start_date: "2027-03-24",
      from_minute: 540,
      price_per: "visit",
      price_minor: 7500,
      who: "Bram Okafor",
    });
    expect(
      one(world.hogar, "SELECT min(date) AS first, count(*) > 12 AS year FROM visits WHERE state = 'forecast'"),
    ).toEqual({
      first: "2027-03-24",
      year: 1,
    });
    await undo(world, importId);
    expect(
      one(
        world.hogar,
        "SELECT (SELECT count(*) FROM repeats) + (SELECT count(*) FROM visits WHERE repeat_id IS NOT NULL) AS n",
      ),
    ).toEqual({ n: 0 });
  });

  it("that are there already are not made twice, nor taken back once a visit is promised", async () => {
    const world = smallWorld();
    world.booked();
    const lines = file.split("\n").slice(0, 2).join("\n").replace("24.03.2027", "17.03.2027");
    const first = await begun(world, lines, "repeats");
    await take(world, first);
    for (let i = 0; i < 3; i++) await runDue(world.hogar);
    const second = await begun(world, lines, "repeats");
    await take(world, second);
    expect(one(world.hogar, "SELECT count(*) AS n FROM repeats")).toEqual({ n: 1 });
    await undo(world, first);
    expect(one(world.hogar, "SELECT state FROM repeats")).toEqual({ state: "active" });
  });
});
