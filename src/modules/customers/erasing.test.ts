import { mustPerform, perform, viewContext } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { tellOfficeOf } from "@/modules/messages/telling-us";
import { creditInvoiceByHand, refundPayment } from "@/modules/money/operations/corrections";
import { firstBroken } from "@/registry/laws";
import { money } from "@/modules/money/views/money";
import { recordPayment } from "@/modules/money/operations/record-payment";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { addByLink } from "@/modules/my-visit/operations/by-link";
import { runDue } from "@/worker/loop";
import { sealedToken } from "@/kernel/links";
import { openThread, writeNote } from "@/modules/messages/operations/conversation";
import { receiveText } from "@/modules/messages/operations/receive";
import { givePoints } from "@/modules/money/operations/points";
import { answerReview, replyToReview, saveReviewRules } from "@/modules/reviews/operations/reviews";
import { office, one, paymentFor, saidOf, smallWorld, system, visitor } from "@demo/small-world";
import fc from "fast-check";
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { bookInOffice } from "@/modules/booking/operations/book-in-office";
import { eraseCustomer } from "./operations/archive-customer";
import { personal } from "./personal";
import { customerData } from "./views/customer-data";
import { possibleDuplicates } from "@/modules/same-person/views/same-person";
import { mergeCustomers } from "@/modules/same-person/operations/same-person";
import { saveCustomer } from "./operations/save-customer";
import { saveSite } from "./operations/sites";

type World = ReturnType<typeof smallWorld>;

/** Every text of every table in which one of the words stands; the words are looked for as bytes in the files too. */
function whereStands(world: World, words: readonly string[]): string[] {
  const { db } = world.hogar.store;
  const tables = db
    .prepare<[], { name: string }>("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%'")
    .all();
  return tables.flatMap(({ name }) =>
    db
      .prepare<[], Record<string, unknown>>(`SELECT * FROM ${name}`)
      .all()
      .flatMap((row) =>
        Object.entries(row).flatMap(([column, value]) =>
          words.some((word) => textOf(value).includes(word))
            ? [`${name}.${column}: ${textOf(value).slice(0, 80)}`]
            : [],
        ),
      ),
  );
}
const textOf = (value: unknown): string =>
  Buffer.isBuffer(value) ? value.toString("latin1") : value === null ? "" : String(value as string | number);

const filesWith = (folder: string, words: readonly string[]): string[] =>
  readdirSync(folder, { recursive: true })
    .map((name) => path.join(folder, String(name)))
    .filter((file) => statSync(file).isFile() && !file.includes("standins"))
    .filter((file) => words.some((word) => readFileSync(file).includes(Buffer.from(word))));

/** Somebody who booked, wrote, was served and paid; their names and notes are `word`. */
async function served(folder: string | null, word: string) {
  const world = smallWorld({}, folder);
  const name = `Mira ${word}`;
  const { visitId, actor } = world.booked({
    as: system,
    name,
    more: {
      note: `${word} opens`,
      customer: { name, mail: `${word}@example.com`, phone: "+1 202 555 0142", reminders: true },
    },
  });
  mustPerform(world.hogar, addByLink, { words: `${word} has a dog`, photos: [] }, actor);
  mustPerform(
    world.hogar,
    saveCustomer,
    {
      id: 1,
      name,
      mail: `${word}@example.com`,
      phone: "+1 202 555 0142",
      reachedBy: "any",
      tags: [`tag-${word}`],
      source: `by ${word}`,
      paymentDays: null,
      technicianNote: `${word} knows`,
      insideNote: `never ${word}`,
      bill: { name: `Agent ${word}`, mail: `agent-${word}@example.com`, address: `${word} street` },
      reminders: true,
      offers: true,
    },
    office,
  );
  mustPerform(
    world.hogar,
    saveSite,
    {
      id: null,
      customerId: 1,
      addressId: world.addresses[30]!.id,
      name: `at ${word}`,
      access: `key ${word}`,
      parking: word,
    },
    office,
  );
  const { hogar } = world;
  mustPerform(hogar, receiveText, { key: "wrote once", sender: "+1 202 555 0142", body: `${word} writes` }, system);
  const { threadId } = mustPerform(hogar, openThread, { customerId: 1 }, office);
  mustPerform(hogar, writeNote, { threadId, visitId: null, words: `${word} is late` }, office);
  mustPerform(hogar, writeNote, { threadId: null, visitId, words: `${word} at the back` }, office);
  mustPerform(hogar, givePoints, { customerId: 1, points: 10, words: `sorry ${word}` }, office);
  mustPerform(hogar, saveReviewRules, { when: "done", hours: 0, restDays: 0, places: [] }, office);
  world.onTheDayOf(visitId);
  for (const to of ["on site", "done"] as const) mustPerform(world.hogar, advanceVisit, { visitId, to }, office);
  await runDue(hogar);
  const { id } = one<{ id: number }>(hogar, "SELECT id FROM reviews");
  const token = sealedToken(hogar, { kind: "review", id });
  mustPerform(hogar, answerReview, { token, rating: 2, praise: `${word} is glad`, trouble: `${word} is not` }, visitor);
  mustPerform(hogar, replyToReview, { id, words: `Dear ${word}` }, office);
  await runDue(hogar);
  return { world, visitId };
}

const pay = (world: World) =>
  mustPerform(
    world.hogar,
    recordPayment,
    paymentFor(world.hogar, one<{ id: number }>(world.hogar, "SELECT id FROM invoices").id, {
      method: "cash",
      amountMinor: 7900,
      key: "paid at the door",
    }),
    office,
  );

const sums = (world: World) => [
  look(world.hogar, money, {}, office),
  world.hogar.store.sql("SELECT id, number, total_minor, tax_minor, due_date FROM invoices").all(),
  world.hogar.store.sql("SELECT id, amount_minor, state, method FROM payments").all(),
  world.hogar.store.sql("SELECT * FROM ledger_entries").all(),
  world.hogar.store.sql("SELECT description, amount_minor FROM job_lines").all(),
];

describe("what is held on a customer", () => {
  it("is handed out whole: every table in which they stand, but nothing that opens or charges anything", async () => {
    const { world } = await served(null, "Zyxomma");
    const held = look(world.hogar, customerData, { customerId: 1 }, office);
    if (!held.ok) throw new Error(held.problem.sentence);
    const text = JSON.stringify(held.value);
    const stands = whereStands(world, ["Zyxomma"]).map((place) => place.split(":")[0]!);
    // Beside these, their name stands in the record of changes, in the index, and in what goes out.
    const elsewhere = /^(audit|customer_search|outbox|short_links|images|import_|security_events)/;
    for (const place of stands.filter((one) => !elsewhere.test(one))) {
      const [table, column] = place.split(".") as [keyof typeof personal, string];
      expect([place, held.value[table]?.some((row) => String(row[column]).includes("Zyxomma"))]).toEqual([place, true]);
    }
    // Where they booked from is theirs to see as well.
    expect(held.value.jobs![0]).toHaveProperty("from_address");
    const { nonce } = one<{ nonce: string }>(world.hogar, "SELECT nonce FROM invoices");
    expect(text).not.toContain(nonce);
  });

  it("is named once, and each column that is about them is overwritten by that list", async () => {
    const { world } = await served(null, "Zyxomma");
    const stands = new Set(whereStands(world, ["Zyxomma"]).map((place) => place.split(":")[0]!));
    const named = Object.entries(personal).flatMap(([table, { columns }]) =>
      Object.keys(columns).map((column) => `${table}.${column}`),
    );
    const ofTables = [...stands].filter((place) => place.split(".")[0]! in personal);
    expect(ofTables.length).toBeGreaterThan(15);
    expect(ofTables.filter((place) => !named.includes(place))).toEqual([]);
  });
});

describe("erasing a customer", () => {
  it("waits until nothing is coming and nothing is open", async () => {
    const { world } = await served(null, "Zyxomma");
    const erase = () => saidOf(perform(world.hogar, eraseCustomer, { customerId: 1 }, office));
    expect(erase()).toBe("There is still 1 open invoice. Cancel or settle them first.");
    pay(world);
    expect(erase()).toBe("done");
    expect(saidOf(perform(world.hogar, eraseCustomer, { customerId: 1 }, office))).toContain("no longer exists");
  });

  it("takes what was said of them elsewhere: why money went back, their STOP, what we told each other, words after a bill", async () => {
    const { world, visitId } = await served(null, "Zyxomma");
    const { hogar } = world;
    pay(world);
    const why = { reason: "Zyxomma complained" };
    mustPerform(
      hogar,
      creditInvoiceByHand,
      { invoiceId: 1, lines: [{ position: 0, amountMinor: 1_000 }], ...why },
      office,
    );
    const { id: paymentId } = one<{ id: number }>(hogar, "SELECT id FROM payments");
    mustPerform(hogar, refundPayment, { paymentId, amountMinor: 1_000, method: "cash", ...why }, office);
    mustPerform(hogar, receiveText, { key: "stop", sender: "+1 202 555 0142", body: "STOP" }, system);
    hogar.store.db
      .transaction(() =>
        hogar.store.audit.under({ at: 1, actor: "test", operation: "test" }, () => {
          const context = { ...viewContext(hogar, office), later: () => {} };
          tellOfficeOf(context, "to sign off", `visit ${visitId}`, {
            ...{ technician: "Bram", who: "Mira Zyxomma", service: "Sweep", where: "here" },
            day: { days: ["2027-03-10"] },
          });
        }),
      )
      .immediate();
    await runDue(hogar);
    expect(whereStands(world, ["Zyxomma", "+12025550142"]).join()).toContain("credit_notes.reason");
    mustPerform(hogar, eraseCustomer, { customerId: 1 }, office);
    await runDue(hogar);
    expect(whereStands(world, ["Zyxomma", "zyxomma", "+12025550142", "+1 202 555 0142"])).toEqual([]);
    expect(firstBroken(hogar.store.sql)).toBeNull();
  });

  it("takes whoever was merged into them along", async () => {
    const { world } = await served(null, "Zyxomma");
    pay(world);
    const { id } = mustPerform(
      world.hogar,
      saveCustomer,
      {
        id: null,
        name: "M. Quibbleton",
        mail: "quibbleton@example.com",
        phone: "",
        reachedBy: "any",
        tags: [],
        source: "",
        paymentDays: null,
        technicianNote: "",
        insideNote: "",
        bill: null,
        reminders: false,
        offers: false,
      },
      office,
    );
    mustPerform(world.hogar, mergeCustomers, { keepId: 1, goneId: id }, office);
    mustPerform(world.hogar, eraseCustomer, { customerId: 1 }, office);
    expect(whereStands(world, ["uibbleton", "Zyxomma"])).toEqual([]);
  });

  it("ends their short links too", async () => {
    const { world } = await served(null, "Zyxomma");
    pay(world);
    const links = () =>
      one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM short_links WHERE kind = 'review'").n;
    expect(links()).toBe(1);
    mustPerform(world.hogar, eraseCustomer, { customerId: 1 }, office);
    expect(links()).toBe(0);
  });

  it("leaves a household alone that shares the phone and the email", async () => {
    const { world } = await served(null, "Zyxomma");
    pay(world);
    const shared = { mail: "zyxomma@example.com", phone: "+1 202 555 0142", wishes: "Any morning" };
    const theirs = world.asked({ name: "Anton Vale", ...shared });
    const own = world.asked({ name: "Mira Zyxomma", ...shared });
    mustPerform(world.hogar, eraseCustomer, { customerId: 1 }, office);
    const request = (id: number) => one(world.hogar, "SELECT name, outcome FROM requests WHERE id = ?", id);
    expect([request(theirs), request(own)]).toEqual([
      { name: "Anton Vale", outcome: "open" },
      { name: "", outcome: "withdrawn" },
    ]);
  });

  it("asks nobody any more whether they are somebody else", async () => {
    const { world } = await served(null, "Zyxomma");
    pay(world);
    const anton = { name: "Anton Vale", mail: "zyxomma@example.com", phone: "+1 555 0177", reminders: true };
    world.booked({ nth: 12, as: system, more: { customer: anton } });
    expect(one(world.hogar, "SELECT count(*) AS n FROM possible_duplicates")).toEqual({ n: 1 });
    mustPerform(world.hogar, eraseCustomer, { customerId: 1 }, office);
    expect(look(world.hogar, possibleDuplicates, {}, office)).toMatchObject({ value: { open: [], merged: [] } });
  });

  it("leaves of an order which work it was, so that what is kept of it can still be read", async () => {
    const { world } = await served(null, "Zyxomma");
    pay(world);
    const items = [{ serviceId: world.services.sweep, answers: {} }];
    const id = world.asked({
      name: "Mira Zyxomma",
      mail: "zyxomma@example.com",
      phone: "+1 555 0199",
      wishes: "Soon",
      items,
    });
    mustPerform(world.hogar, eraseCustomer, { customerId: 1 }, office);
    const { items: left } = one<{ items: string }>(world.hogar, "SELECT items FROM requests WHERE id = ?", id);
    expect(JSON.parse(left)).toMatchObject([{ serviceId: world.services.sweep, answers: {} }]);
  });

  it("is no customer for whom somebody can be booked", async () => {
    const { world } = await served(null, "Zyxomma");
    pay(world);
    mustPerform(world.hogar, eraseCustomer, { customerId: 1 }, office);
    const { date, from, to } = world.offers(world.services.sweep, 12)[0]!;
    const booked = perform(
      world.hogar,
      bookInOffice,
      {
        addressId: world.addresses[12]!.id,
        items: [{ serviceId: world.services.sweep }],
        ...{ date, from, to, note: "", customer: { id: 1 } },
      },
      office,
    );
    expect(booked).toMatchObject({ problem: { code: "not-found" } });
  });

  it("leaves no byte of who they were in any table or file, and every sum as it was", async () => {
    const letters = fc.string({ unit: fc.constantFrom(..."bcdfghjklmnpqrstvwxz"), minLength: 8, maxLength: 12 });
    await fc.assert(
      fc.asyncProperty(letters, async (some) => {
        const word = `Q${some}`;
        const folder = mkdtempSync(path.join(tmpdir(), "hogar-erase-"));
        const { world } = await served(folder, word);
        pay(world);
        await runDue(world.hogar);
        const words = [word, word.toLowerCase(), "202 555 0142", "2025550142"];
        expect(whereStands(world, words).length).toBeGreaterThan(20);
        const before = sums(world);
        mustPerform(world.hogar, eraseCustomer, { customerId: 1 }, office);
        await runDue(world.hogar);
        expect(sums(world)).toEqual(before);
        expect(whereStands(world, words)).toEqual([]);
        expect(filesWith(folder, words)).toEqual([]);
        world.hogar.store.db.close();
        rmSync(folder, { recursive: true });
      }),
      { numRuns: 4 },
    );
  });
});
