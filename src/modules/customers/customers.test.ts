import { everybody } from "@/core/customers/filter";
import { type Actor, personActor } from "@/core/people/permissions";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { cancelVisit } from "@/modules/visits/operations/cancel-visit";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { visitSheet } from "@/modules/visits/views/visit-sheet";
import { firstPage } from "@/ui/first-page";
import { runDue } from "@/worker/loop";
import { office, one, saidOf, smallWorld, system, worldWithPost } from "@demo/small-world";
import type { SaveCustomer } from "./inputs";
import { archiveCustomer } from "./operations/archive-customer";
import { saveCustomer } from "./operations/save-customer";
import { removeView, saveView } from "./operations/saved-views";
import { archiveSite, saveSite } from "./operations/sites";
import { customer } from "./views/customer";
import { customerChoices, customers } from "./views/customers";
import { find } from "./views/find";
import { sameAs } from "./views/same-as";

type World = ReturnType<typeof smallWorld>;

const anton: SaveCustomer = {
  id: null,
  name: "Anton Vale",
  mail: "anton@example.com",
  phone: "+1 202 555 0143",
  reachedBy: "any",
  tags: ["Landlord", "gas"],
  source: "harbour fair",
  paymentDays: null,
  technicianNote: "Ring twice",
  insideNote: "Pays late",
  bill: null,
  reminders: true,
  offers: false,
};
const noNotes = { name: "", access: "", parking: "" };
const make = (world: World, more: Partial<SaveCustomer> = {}) =>
  mustPerform(world.hogar, saveCustomer, { ...anton, ...more }, office).id;
const see = (world: World, id: number, as: Actor = office) => {
  const view = look(world.hogar, customer, { id, visits: 20, messages: 20 }, as);
  if (!view.ok) throw new Error(view.problem.sentence);
  return view.value;
};
const list = (world: World, more: { search?: string; filter?: object } = {}, as: Actor = office) => {
  const asked = { ...firstPage<"customers">("name"), ...more, filter: { ...everybody, ...more.filter } };
  const view = look(world.hogar, customers, asked, as);
  if (!view.ok) throw new Error(view.problem.sentence);
  return view.value.rows.map((row) => row.name);
};

describe("a customer", () => {
  it("is made with a first site, changed, and known with all that was written", () => {
    const world = smallWorld();
    const id = make(world, {
      site: { addressId: world.addresses[3]!.id, name: "the mill", access: "Key", parking: "" },
    });
    expect(see(world, id)).toMatchObject({
      name: "Anton Vale",
      tags: ["gas", "Landlord"],
      insideNote: "Pays late",
      sites: [{ name: "the mill", access: "Key", zone: "Harbourside" }],
      consents: [{ kind: "reminders", given: 1 }],
    });
    mustPerform(
      world.hogar,
      saveCustomer,
      { ...anton, id, name: "Anton  Vale-Ruiz", tags: ["gas"], reminders: false, paymentDays: 30 },
      office,
    );
    expect(see(world, id)).toMatchObject({ name: "Anton Vale-Ruiz", tags: ["gas"], reminders: false, paymentDays: 30 });
    expect(see(world, id).consents.map((c) => [c.kind, c.given])).toEqual([
      ["reminders", 0],
      ["reminders", 1],
    ]);
  });

  it("needs neither phone nor email, and has those it has as they can be used", () => {
    const world = smallWorld();
    expect(make(world, { mail: "", phone: "" })).toBe(1);
    expect(saidOf(perform(world.hogar, saveCustomer, { ...anton, phone: "12-34" }, office))).toContain("phone number");
    const billing = { by: null, paymentFrom: "invoice", taxKind: "reverse charge", taxNumber: " " } as const;
    expect(saidOf(perform(world.hogar, saveCustomer, { ...anton, billing }, office))).toContain("tax number");
    expect(saidOf(perform(world.hogar, saveCustomer, { ...anton, mail: "anton@" }, office))).not.toBe("done");
  });

  it("who may be known already is told while they are typed, and put side by side when made all the same", () => {
    const world = smallWorld();
    const id = make(world);
    const typed = { name: "A. Vale", mail: "", phone: "202 555 0143", addressId: null, but: null };
    expect(look(world.hogar, sameAs, typed, office)).toMatchObject({ value: [{ id, certain: true }] });
    expect(look(world.hogar, sameAs, { ...typed, but: id }, office)).toMatchObject({ value: [] });
    make(world, { name: "Tilda Vale" });
    expect(one(world.hogar, "SELECT state FROM possible_duplicates")).toEqual({ state: "open" });
  });

  it("is archived when nothing is coming, out of the lists, and back with their next booking", () => {
    const world = smallWorld();
    const booked = world.booked({ as: system });
    const archive = (archived: boolean) => perform(world.hogar, archiveCustomer, { customerId: 1, archived }, office);
    expect(saidOf(archive(true))).toBe("There is still 1 visit to come. Cancel what is to come first.");
    mustPerform(world.hogar, cancelVisit, { visitId: booked.visitId, refundDeposit: false }, office);
    expect(saidOf(archive(true))).toBe("done");
    expect([list(world), list(world, { filter: { archived: true } })]).toEqual([[], ["Mira Okonjo"]]);
    world.booked({ as: system, nth: 12 });
    expect(list(world)).toEqual(["Mira Okonjo"]);
  });
});

describe("a site", () => {
  it("is added, changed and archived; an address to which somebody is to come stays", () => {
    const world = smallWorld();
    world.booked({ as: system });
    const [first, second] = [world.addresses[20]!.id, world.addresses[21]!.id];
    const site = { customerId: 1, ...noNotes };
    const { id } = mustPerform(world.hogar, saveSite, { id: null, addressId: first, ...site }, office);
    mustPerform(world.hogar, saveSite, { id, addressId: second, ...site, access: "Code 12" }, office);
    expect(see(world, 1).sites[1]).toMatchObject({ line: world.addresses[21]!.line, access: "Code 12" });
    mustPerform(world.hogar, archiveSite, { siteId: id, archived: true }, office);
    expect(see(world, 1).sites.map((s) => s.archived_at !== null)).toEqual([false, true]);
    expect(saidOf(perform(world.hogar, archiveSite, { siteId: 1, archived: true }, office))).toContain("still to come");
    expect(saidOf(perform(world.hogar, saveSite, { id: 1, addressId: first, ...site }, office))).toContain("promised");
  });
});

describe("a bill that goes to somebody else", () => {
  it("is addressed to them as it stood, told to them alone, and due by the customer's own terms", async () => {
    const world = worldWithPost();
    const { visitId } = world.booked({ as: system });
    const bill = { name: "Quay Agents", mail: "bills@quay.example", address: "2 Quay" };
    mustPerform(
      world.hogar,
      saveCustomer,
      { ...anton, id: 1, name: "Mira Okonjo", mail: "mira@example.com", bill, paymentDays: 30 },
      office,
    );
    world.onTheDayOf(visitId);
    for (const to of ["on site", "done"] as const) mustPerform(world.hogar, advanceVisit, { visitId, to }, office);
    await runDue(world.hogar);
    expect(one(world.hogar, "SELECT bill_name, bill_address, due_date FROM invoices")).toEqual({
      bill_name: "Quay Agents",
      bill_address: "2 Quay",
      due_date: "2027-04-09",
    });
    expect(world.sent.filter((m) => /invoice/i.test(m.subject)).map((m) => m.to)).toEqual(["bills@quay.example"]);
  });
});

describe("others who are reached for a customer", () => {
  const rosa = { name: "Rosa Adeyemi", role: "caretaker", mail: "rosa@quay.example", phone: "202 555 0144" };

  it("are told of visits, sent bills by a link that opens these alone, and let us in, as it is ticked", async () => {
    const world = worldWithPost();
    const { visitId } = world.booked({ as: system });
    const mira = { ...anton, id: 1, name: "Mira Okonjo", mail: "mira@example.com" };
    const ivo = { name: "Ivo Quay", role: "", mail: "ivo@quay.example", phone: "" };
    const contacts = [
      { ...rosa, uses: ["visits" as const, "access" as const] },
      { ...ivo, uses: ["bills" as const] },
    ];
    mustPerform(world.hogar, saveCustomer, { ...mira, contacts }, office);
    await runDue(world.hogar);
    world.sent.length = 0;
    world.onTheDayOf(visitId);
    const sheet = look(world.hogar, visitSheet, { visitId }, office);
    expect(sheet.ok && sheet.value.siteNotes).toContain("Lets us in: Rosa Adeyemi (caretaker), +1 202 555 0144");
    mustPerform(world.hogar, advanceVisit, { visitId, to: "on the way" }, office);
    await runDue(world.hogar);
    expect(world.sent.map(({ to }) => to)).toEqual(expect.arrayContaining(["+1 202 555 0144"]));
    for (const to of ["on site", "done"] as const) mustPerform(world.hogar, advanceVisit, { visitId, to }, office);
    world.sent.length = 0;
    await runDue(world.hogar);
    const invoice = world.sent.find(({ to }) => to === "ivo@quay.example")!;
    expect(invoice.body).toContain("/invoice/");
    expect(invoice.body).not.toContain("/my/");
    expect(world.sent.filter(({ to, subject }) => to === rosa.mail && /invoice/i.test(subject))).toEqual([]);
  });

  it("need an address for what they are to get, and a number that is one", () => {
    const world = worldWithPost();
    const save = (contact: object) =>
      saidOf(
        perform(world.hogar, saveCustomer, { ...anton, contacts: [{ ...rosa, ...contact }] } as SaveCustomer, office),
      );
    expect(save({ mail: "", phone: "", uses: ["bills"] })).toMatch(/email or a phone/);
    expect(save({ phone: "12 34 56 78 90 12 34 56 78", uses: [] })).toMatch(/too long/);
    expect(save({ mail: "", phone: "", uses: ["access"] })).toBe("done");
  });
});

describe("how somebody likes to be reached", () => {
  it("says which of two ways a message goes", async () => {
    const world = worldWithPost();
    world.booked({ as: system });
    await runDue(world.hogar);
    expect(world.sent.map((m) => m.way)).toEqual(["mail"]);
    world.hogar.store.audit.under({ at: 0, actor: "test", operation: "test" }, () =>
      world.hogar.store.sql("UPDATE customers SET reached_by = 'text'").run(),
    );
    world.sent.length = 0;
    world.booked({ as: system, nth: 12 });
    await runDue(world.hogar);
    expect(world.sent.map((m) => m.way)).toEqual(["text"]);
  });
});

describe("who is looked for", () => {
  it("is found by any part of name, phone however written, email, street, postcode, tag and note", () => {
    const world = smallWorld();
    const address = world.addresses[3]!;
    make(world, { name: "Ánton Vale", site: { addressId: address.id, ...noNotes } });
    make(world, {
      name: "Tilda Moss",
      mail: "tilda@example.com",
      phone: "+1 202 555 0199",
      tags: [],
      insideNote: "",
      technicianNote: "",
    });
    const parts = [
      "anton",
      "VAL",
      "5550143",
      "(202) 555-0143",
      "0202 555 0143",
      "n@exam",
      "landl",
      "late",
      "twice",
      "vale gas",
      "al",
    ];
    const streets = [address.line.slice(2, 9), address.postcode.replace(" ", "")];
    for (const search of [...parts, ...streets])
      expect([search, list(world, { search })[0]]).toEqual([search, "Ánton Vale"]);
    expect(list(world, { search: "vale moss" })).toEqual([]);
    expect(look(world.hogar, find, { text: "landlord" }, office)).toMatchObject({
      value: { customers: [{ name: "Ánton Vale" }] },
    });
  });

  it("is found by who is reached for them: by name, phone however written and email", () => {
    const world = smallWorld();
    const rosa = { name: "Rosa Adeyemi", role: "caretaker", mail: "rosa@example.com", phone: "+1 202 555 0177" };
    make(world, { contacts: [{ ...rosa, uses: ["access"] }] });
    for (const search of ["adeyemi", "202.555.0177", "rosa@exam"])
      expect([search, list(world, { search })]).toEqual([search, [anton.name]]);
  });

  it("is found by what they are now, and no more by what they were", () => {
    const world = smallWorld();
    const id = make(world);
    mustPerform(world.hogar, saveCustomer, { ...anton, id, name: "Selma Quill", tags: [] }, office);
    expect([
      list(world, { search: "vale" }),
      list(world, { search: "landlord" }),
      list(world, { search: "quill" }),
    ]).toEqual([[], [], ["Selma Quill"]]);
  });
});

describe("views of the list", () => {
  it("show open money, who was not visited, who has nothing coming, a zone, a source and a tag", () => {
    const world = smallWorld();
    const { visitId } = world.booked({ as: system });
    make(world);
    world.onTheDayOf(visitId);
    for (const to of ["on site", "done"] as const) mustPerform(world.hogar, advanceVisit, { visitId, to }, office);
    const zoneId = one<{ id: number }>(world.hogar, "SELECT id FROM zones").id;
    const filters = [
      { openMoney: true },
      { noComing: true },
      { zoneId },
      { source: "harbour fair" },
      { tag: "landlord" },
      { noVisitDays: 1 },
    ];
    expect(filters.map((filter) => list(world, { filter }))).toEqual([
      ["Mira Okonjo"],
      ["Anton Vale", "Mira Okonjo"],
      ["Mira Okonjo"],
      ["Anton Vale"],
      ["Anton Vale"],
      [],
    ]);
    expect(see(world, 1)).toMatchObject({ openMinor: 7900, invoices: [{ state: "open", openMinor: 7900 }] });
    world.later(3 * 1440);
    expect(list(world, { filter: { noVisitDays: 2 } })).toEqual(["Anton Vale", "Mira Okonjo"]);
    expect(list(world, { filter: { noVisitDays: 30 } })).toEqual([]);
  });

  it("are kept under a name, replaced by one of the same, and removed", () => {
    const world = smallWorld();
    const filter = { ...everybody, tag: "gas" };
    mustPerform(world.hogar, saveView, { name: "Gas people", filter }, office);
    const { id } = mustPerform(
      world.hogar,
      saveView,
      { name: "gas people", filter: { ...filter, noComing: true } },
      office,
    );
    const views = () =>
      look(world.hogar, customerChoices, {}, office) as { value: { views: { name: string; filter: object }[] } };
    expect(views().value.views).toEqual([{ id, name: "Gas people", filter: { ...filter, noComing: true } }]);
    expect(saidOf(perform(world.hogar, saveView, { name: "open money", filter }, office))).toBe(
      "A view of this name is always there.",
    );
    mustPerform(world.hogar, removeView, { viewId: id }, office);
    expect(views().value.views).toEqual([]);
  });
});

describe("who sees what", () => {
  const person = (more: object) =>
    personActor({ id: 9, name: "Kofi", role: "dispatcher", technicianId: null, ...more });

  it("keeps contacts, notes and money from whoever has no right to them, in lists and in what is found", () => {
    const world = smallWorld();
    const id = make(world, { bill: { name: "Quay Agents", mail: "b@quay.example", address: "" } });
    const little = person({ taken: ["contacts.see", "notes.see"] });
    expect(see(world, id, little)).toMatchObject({
      mail: null,
      phone: null,
      insideNote: null,
      bill: null,
      invoices: null,
    });
    expect([list(world, { search: "555 0143" }, little), list(world, { search: "pays late" }, little)]).toEqual([
      [],
      [],
    ]);
    expect(list(world, { search: "anton" }, little)).toEqual(["Anton Vale"]);
    expect(look(world.hogar, customers, { ...firstPage<"customers">("openMinor") }, person({}))).toMatchObject({
      problem: { code: "not-allowed" },
    });
  });

  it("leaves as they are the contacts and notes that somebody changes a customer without seeing", () => {
    const world = smallWorld();
    const id = make(world);
    const little = person({ taken: ["contacts.see", "notes.see"] });
    const unseen = { mail: "", phone: "", insideNote: "", bill: null };
    mustPerform(world.hogar, saveCustomer, { ...anton, ...unseen, id, name: "Anton V. Vale" }, little);
    expect(see(world, id)).toMatchObject({ name: "Anton V. Vale", mail: "anton@example.com", insideNote: "Pays late" });
  });

  it("shows a technician the customers of their own visits, on the days around them", () => {
    const world = smallWorld();
    const { visitId } = world.booked({ as: system });
    make(world);
    const { technician_id: own } = one<{ technician_id: number }>(
      world.hogar,
      "SELECT technician_id FROM placements WHERE visit_id = ?",
      visitId,
    );
    const as = (technicianId: number) => person({ role: "technician", technicianId, given: ["customers.see"] });
    const other = world.technicians.find((id) => id !== own)!;
    expect([list(world, {}, as(own)), list(world, {}, as(other))]).toEqual([["Mira Okonjo"], []]);
    expect(look(world.hogar, customer, { id: 2, visits: 1, messages: 1 }, as(own))).toMatchObject({
      problem: { code: "not-found" },
    });
    world.later(15 * 1440 + 1440);
    expect(list(world, {}, as(own))).toEqual([]);
    expect(look(world.hogar, customer, { id: 1, visits: 1, messages: 1 }, as(own))).toMatchObject({
      problem: { code: "not-found" },
    });
  });
});
