import fc from "fast-check";
import { customerOf } from "../imports/customer-row";
import { matchColumns, valuesOf } from "../imports/match-columns";
import { readFile } from "../imports/read-file";
import { type CustomerCard, customersCsv } from "./cards";
import { vCardsOf } from "./vcards";

const mira: CustomerCard = {
  name: "Mira Okonjo",
  phone: "+1 202 555 0142",
  mail: "mira@example.com",
  reachedBy: "text",
  tags: ["gas", "yearly"],
  source: "harbour-fair",
  paymentDays: 30,
  technicianNote: "Two flues;\nthe dog is friendly, mostly",
  insideNote: '=Pays "late"',
  bill: { name: "Quay Agents", mail: "bills@quay.example", address: "2 Quay" },
  billing: "month",
  paymentFrom: "end of month",
  taxKind: "reverse charge",
  taxNumber: "XX 123",
  language: "es",
  contacts: [
    { name: "Rosa Adeyemi", role: "caretaker", phone: "+1 202 555 0143", mail: "", uses: ["access"] },
    { name: "Ivo Quay", role: "", phone: "", mail: "ivo@quay.example", uses: ["visits", "bills"] },
  ],
  reminders: true,
  offers: false,
  since: "2024-03-09",
  sites: [
    { name: "the mill", line: "1 Mill Lane, Harbourside", postcode: "MW 101", access: "Key at 3", parking: "-" },
    { name: "", line: "2 Quay, Harbourside", postcode: "MW 102", access: "", parking: "" },
  ],
};

/** What the import makes of a file: one draft a row. */
function readBack(text: string) {
  const read = readFile(new TextEncoder().encode(text));
  if (!read.ok) throw new Error(read.sentence);
  const columns = matchColumns("customers", read.table);
  return read.table.rows.map((cells) =>
    customerOf(valuesOf(columns, cells), { dates: columns.dates, ownPhone: "+1 555 0100" }),
  );
}

describe("customers as CSV", () => {
  it("are read back as they were, a row for each site", () => {
    const rows = readBack(customersCsv([mira]));
    const { sites, ...all } = mira;
    expect(rows).toEqual(
      sites.map((site) => ({
        problems: [],
        draft: { ...all, tags: [...all.tags], contacts: [...all.contacts], site: { ...site, town: "" } },
      })),
    );
  });

  it("hold nothing that a spreadsheet would take for a formula", () => {
    expect(customersCsv([mira])).toContain(`"'=Pays ""late"""`);
    expect(customersCsv([{ ...mira, sites: [] }])).toContain("'+1 202 555 0142");
  });

  it("come back the same, whatever the notes and names are", () => {
    const words = fc
      .string({ unit: fc.constantFrom(..."ab ,;\"'=+-@\n|é") })
      .map((text) => text.trim().replace(/\s+/g, " "));
    fc.assert(
      fc.property(
        words,
        words.filter((w) => /[a-zé]/.test(w) && !w.includes("@") && !w.includes(",")),
        (note, name) => {
          const [row] = readBack(customersCsv([{ ...mira, name, insideNote: note, sites: [] }]));
          return row!.draft.insideNote === note && row!.draft.name === name;
        },
      ),
    );
  });
});

describe("customers as vCard", () => {
  it("hold how they are reached, where we go and what technicians know; what is for inside stays", () => {
    const text = vCardsOf([mira]);
    expect(text).toContain("VERSION:4.0");
    expect(text).not.toContain("Pays");
    expect(readBack(text).map(({ draft }) => [draft.name, draft.phone, draft.tags, draft.site?.line])).toEqual([
      ["Mira Okonjo", "+1 202 555 0142", ["gas", "yearly"], "1 Mill Lane, Harbourside"],
      ["Mira Okonjo", "+1 202 555 0142", ["gas", "yearly"], "2 Quay, Harbourside"],
    ]);
  });
});
