import { splitEvenly } from "@/core/money/instalments";
import { sum, totalOf } from "@/core/money/amounts";
import { linesWithDiscount, type Paper, type PaperLine, priceOf, withoutTax } from "@/core/money/papers";
import fc from "fast-check";
import { XMLParser } from "fast-xml-parser";
import { paperPdf } from "./pdf";
import { paperUbl } from "./ubl";

/** What is written is read back by other libraries than wrote it. */
const readPdf: (pdf: Buffer) => Promise<{ text: string; numpages: number }> =
  jest.requireActual("pdf-parse/lib/pdf-parse.js");

const sweep = priceOf({ description: "Chimney sweep", quantity: 1, unitMinor: 8_900, taxBp: 2_100 }, true);
const cap = priceOf(
  { description: "Chimney cap", quantity: 2, unitMinor: 4_550, taxBp: 1_000, discountBp: 1_000 },
  true,
);

function paper(lines: PaperLine[], more: Partial<Paper> = {}): Paper {
  const { totalMinor } = totalOf(lines);
  return {
    kind: "invoice",
    label: "MW-2027-0012",
    issued: "2027-03-10",
    due: "2027-03-24",
    about: null,
    seller: {
      name: "Marrowick Home Care",
      address: ["1 Market Street", "MW 101"],
      taxNumber: "XX123456789",
      registration: "12345",
      bankAccount: "XX00 1234 5678",
      mail: "office@marrowick.example",
      phone: "+1 555 0100",
      site: "",
      mark: null,
    },
    buyer: {
      name: "Zofia Łukasik",
      address: ["14 Birch Lane", "MW 203"],
      taxNumber: "",
      mail: "z@example.com",
      phone: "",
    },
    place: null,
    currency: "EUR",
    taxKind: "standard",
    zeroKind: "zero rated",
    taxWords: "",
    pricesIncludeTax: true,
    before: "",
    lines,
    entries: [],
    totalMinor,
    paidMinor: 0,
    creditedMinor: 0,
    openMinor: totalMinor,
    after: "",
    ...more,
  };
}

describe("a paper as PDF", () => {
  const read = async (one: Paper) => readPdf(await paperPdf(one, null));

  it("says who, to whom, what, the tax of each rate and what is to pay, on one page", async () => {
    const { text, numpages } = await read(paper([sweep, cap], { paidMinor: 2_000, openMinor: 15_090 }));
    expect(numpages).toBe(1);
    for (const words of [
      "Invoice MW-2027-0012",
      "Zofia Łukasik",
      "14 Birch Lane",
      "Marrowick Home Care",
      "Chimney sweep",
    ])
      expect(text).toContain(words);
    expect(text).toContain("Chimney cap, 10% off");
    expect(text).toMatch(/Tax 10% on €74.45\s*€7.45/);
    expect(text).toMatch(/Tax 21% on €73.55\s*€15.45/);
    expect(text).toMatch(/Total\s*€170.90/);
    expect(text).toMatch(/To pay\s*€150.90/);
    expect(text).not.toContain("1 of 1");
  });

  it("goes on over pages that are numbered, with nothing lost, where it has forty lines", async () => {
    const lines = Array.from({ length: 40 }, (_, i) => ({
      ...sweep,
      description: `Flat ${i + 1}, sweep and certificate`,
    }));
    const { text, numpages } = await read(paper(lines));
    expect(numpages).toBeGreaterThan(1);
    expect(text).toContain(`1 of ${numpages}`);
    for (let i = 1; i <= 40; i++) expect(text).toContain(`Flat ${i}, sweep`);
  });

  it("keeps a long address and long words within the page", async () => {
    const { text } = await read(
      paper([sweep], {
        buyer: {
          name: "The Owners of the Old Harbour Warehouse, a Cooperative Housing Society of Marrowick",
          address: [
            "c/o Quay Agents, Second Floor, Entrance by the Courtyard",
            "112 Old Harbour Road",
            "MW 404 Marrowick",
          ],
          taxNumber: "XX987654321",
          mail: "",
          phone: "",
        },
      }),
    );
    for (const words of ["Cooperative Housing", "Entrance by the", "MW 404 Marrowick", "XX987654321"])
      expect(text.replace(/\n/g, " ")).toContain(words);
  });

  it("says in which parts it is paid, and until when", async () => {
    const parts = splitEvenly(9_000, 2, "2027-03-24");
    const { text } = await read(paper([sweep], { parts }));
    for (const words of ["Part 1", "€45.00 until 24 March 2027", "Part 2", "€45.00 until 24 April 2027"])
      expect(text).toContain(words);
  });

  it("says of a credit note which invoice it takes back, and why", async () => {
    const { text } = await read(
      paper([sweep], {
        kind: "credit note",
        label: "C-2027-0001",
        about: "MW-2027-0012",
        before: "Came twice",
        due: null,
      }),
    );
    expect(text).toContain("Credit note C-2027-0001");
    expect(text).toContain("MW-2027-0012");
    expect(text).toContain("Came twice");
  });

  it("says on a statement what happened, with the balance after each", async () => {
    const { text } = await read(
      paper([], {
        kind: "statement",
        label: "",
        totalMinor: 4_000,
        entries: [
          { date: "2027-03-01", words: "Brought forward", amountMinor: 0, balanceMinor: 0 },
          { date: "2027-03-10", words: "Invoice MW-2027-0012", amountMinor: 8_900, balanceMinor: 8_900 },
          { date: "2027-03-12", words: "Payment, transfer", amountMinor: -4_900, balanceMinor: 4_000 },
        ],
      }),
    );
    expect(text).toMatch(/Payment, transfer\s*−€49.00\s*€40.00/);
    expect(text).toContain("To pay: €40.00");
  });
});

describe("a paper as UBL", () => {
  it.each([
    ["the tax number", { taxNumber: "PT123456789", phone: "+44 20 7946 0000" }, "PT"],
    ["the telephone where there is none", { taxNumber: "", phone: "+44 20 7946 0000" }, "GB"],
  ])("says the seller’s country by %s, and the buyer’s is the same unless theirs says another", (_, more, country) => {
    const one = paper([sweep]);
    const countries = (taxNumber: string) =>
      [
        ...paperUbl({ ...one, seller: { ...one.seller, ...more }, buyer: { ...one.buyer, taxNumber } }).matchAll(
          /<cbc:IdentificationCode>(..)</g,
        ),
      ].map(([, code]) => code);
    expect(countries("")).toEqual([country, country]);
    expect(countries("ES123")).toEqual([country, "ES"]);
  });

  const parser = new XMLParser({
    removeNSPrefix: true,
    ignoreAttributes: false,
    isArray: (name) => /Line$|Subtotal$/.test(name),
  });
  const cents = (node: { "#text": string | number } | undefined) => Math.round(Number(node?.["#text"] ?? 0) * 100);
  const anyLine = fc
    .record({
      quantity: fc.constantFrom(1, 2, 3, 0.5, 12),
      unitMinor: fc.integer({ min: 1, max: 500_000 }),
      taxBp: fc.constantFrom(0, 600, 1_000, 2_100),
      discountBp: fc.constantFrom(0, 500, 1_000, 3_333),
    })
    .map((line) => ({ description: "Work & parts <all>", ...line }));

  it("adds up by the rules of EN 16931, whatever stands on it", () => {
    fc.assert(
      fc.property(
        fc.array(anyLine, { minLength: 1, maxLength: 12 }),
        fc.boolean(),
        fc.constantFrom(0, 500, 1_250),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.constantFrom("invoice" as const, "credit note" as const),
        (some, inclusive, discountBp, paidShare, kind) => {
          const priced = some.map((line) => priceOf(line, inclusive));
          const lines = linesWithDiscount(priced, { discountBp, words: "Discount", pricesIncludeTax: inclusive });
          const { totalMinor } = totalOf(lines);
          const paidMinor = kind === "invoice" ? Math.floor(totalMinor * paidShare) : 0;
          const one = paper(lines, {
            kind,
            paidMinor,
            openMinor: totalMinor - paidMinor,
            about: kind === "invoice" ? null : "1",
          });
          const root = parser.parse(paperUbl(one))[kind === "invoice" ? "Invoice" : "CreditNote"];
          const lineNodes = root[kind === "invoice" ? "InvoiceLine" : "CreditNoteLine"];
          const total = root.LegalMonetaryTotal;
          const subtotals = root.TaxTotal.TaxSubtotal;
          const net = sum(lineNodes.map((line: never) => cents(line["LineExtensionAmount"])));
          // BR-CO-10, BR-CO-13, BR-CO-14, BR-CO-15, BR-CO-16.
          expect(cents(total.LineExtensionAmount)).toBe(net);
          expect(cents(total.TaxExclusiveAmount)).toBe(net);
          expect(cents(root.TaxTotal.TaxAmount)).toBe(sum(subtotals.map((tax: never) => cents(tax["TaxAmount"]))));
          expect(cents(total.TaxInclusiveAmount)).toBe(net + cents(root.TaxTotal.TaxAmount));
          expect(cents(total.PayableAmount)).toBe(cents(total.TaxInclusiveAmount) - cents(total.PrepaidAmount));
          expect(cents(total.PayableAmount)).toBe(totalMinor - paidMinor);
          // BR-S-08: each rate has the net of its lines.
          for (const tax of subtotals as Record<string, never>[]) {
            const percent = Number(tax["TaxCategory"]!["Percent"]);
            const ofRate = lineNodes.filter(
              (line: never) => Number(line["Item"]["ClassifiedTaxCategory"]["Percent"]) === percent,
            );
            expect(cents(tax["TaxableAmount"])).toBe(
              sum(ofRate.map((line: never) => cents(line["LineExtensionAmount"]))),
            );
            // BR-CO-17, within the unit that the rule allows for sums of rounded lines.
            expect(Math.abs(cents(tax["TaxAmount"]) - (cents(tax["TaxableAmount"]) * percent) / 100)).toBeLessThan(100);
          }
          // A price of one is never below nothing, and comes to the net amount of its line.
          for (const line of lineNodes) {
            const price = Number(line.Price.PriceAmount["#text"]);
            const quantity = Number((line.InvoicedQuantity ?? line.CreditedQuantity)["#text"]);
            expect(price).toBeGreaterThanOrEqual(0);
            expect(Math.abs(price * quantity * 100 - cents(line.LineExtensionAmount))).toBeLessThan(1);
          }
        },
      ),
      { numRuns: 300 },
    );
  });

  it("says of a credit note how it is settled, since it has no day on which it is due", () => {
    const note = parser.parse(paperUbl(paper([sweep], { kind: "credit note", due: null }))).CreditNote;
    expect(note.PaymentTerms.Note).toMatch(/paid back/);
    expect(Object.keys(note).indexOf("PaymentTerms")).toBeLessThan(Object.keys(note).indexOf("TaxTotal"));
  });

  it("says why there is no tax where the customer accounts for it", () => {
    const lines = withoutTax([sweep]);
    const root = parser.parse(
      paperUbl(paper(lines, { taxKind: "reverse charge", taxWords: "Reverse charge." })),
    ).Invoice;
    expect(root.TaxTotal.TaxSubtotal[0].TaxCategory).toMatchObject({
      ID: "AE",
      Percent: 0,
      TaxExemptionReasonCode: "VATEX-EU-AE",
      TaxExemptionReason: "Reverse charge.",
    });
    expect(cents(root.LegalMonetaryTotal.PayableAmount)).toBe(8_900 - 1_545);
  });
});
