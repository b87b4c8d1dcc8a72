import { mustPerform } from "@/kernel/operation";
import { saveBusiness } from "@/modules/business/operations/save-business";
import { books } from "@demo/books";
import { businessInput, office, one, system } from "@demo/small-world";
import { postBankLine, saveOwnAccount } from "./operations/bank";
import { recordPayout } from "./operations/payouts";

interface Line {
  day: string;
  minor: number;
  name: string;
  words: string;
  returned?: true;
}

const decimal = (minor: number) => (minor / 100).toFixed(2);
const balanceNode = (code: string, minor: number, day: string) =>
  `<Bal><Tp><CdOrPrtry><Cd>${code}</Cd></CdOrPrtry></Tp><Amt Ccy="EUR">${decimal(minor)}</Amt><CdtDbtInd>CRDT</CdtDbtInd><Dt><Dt>${day}</Dt></Dt></Bal>`;

/** Lines as a statement of a bank that opens with €1,000.00; the reference says nothing, as with many banks. */
const asCamt = (lines: readonly Line[]): string => {
  const entries = lines.map(({ day, minor, name, words, returned }) => {
    const [ours, theirs] = minor > 0 || returned ? ["Cdtr", "Dbtr"] : ["Dbtr", "Cdtr"];
    return `<Ntry><Amt Ccy="EUR">${decimal(Math.abs(minor))}</Amt><CdtDbtInd>${minor > 0 ? "CRDT" : "DBIT"}</CdtDbtInd>${returned ? "<RvslInd>true</RvslInd>" : ""}
      <Sts>BOOK</Sts><BookgDt><Dt>${day}</Dt></BookgDt><AcctSvcrRef>NONREF</AcctSvcrRef><NtryDtls><TxDtls>
      <RltdPties><${theirs}><Nm>${name}</Nm></${theirs}><${ours}><Nm>Our Business</Nm></${ours}></RltdPties>
      <RmtInf><Ustrd>${words}</Ustrd></RmtInf></TxDtls></NtryDtls></Ntry>`;
  });
  const closing = lines.reduce((sum, { minor }) => sum + minor, 100_000);
  return `<?xml version="1.0" encoding="UTF-8"?><Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.02"><BkToCstmrStmt><GrpHdr><MsgId>1</MsgId></GrpHdr>
    <Stmt><Id>1</Id>${balanceNode("OPBD", 100_000, lines[0]!.day)}${balanceNode("CLBD", closing, lines.at(-1)!.day)}${entries.join("")}</Stmt></BkToCstmrStmt></Document>`;
};

/** The same with a balance that runs along. */
const asCsv = (lines: readonly Line[]): string => {
  let balance = 100_000;
  const rows = lines.map(({ day, minor, name, words, returned }) => {
    balance += minor;
    return [day, decimal(minor), name, returned ? `RETURNED ${words}` : words, decimal(balance)].join(";");
  });
  return ["Date;Amount;Name;Text;Balance", ...rows].join("\n");
};

describe.each([
  ["CAMT", asCamt],
  ["CSV with a balance", asCsv],
])("ten days of the bank as %s", (_, written) => {
  it("lose no line, count none twice, and end where the bank does", async () => {
    const w = books();
    const numbers = { invoicePrefix: "", creditPrefix: "C", bankAccount: "", exemptWords: "" };
    const billing = { ...numbers, paymentFrom: "invoice", by: "job", returnFeeMinor: 700 } as const;
    mustPerform(w.hogar, saveBusiness, { ...businessInput, billing }, office);
    const payout = { reference: "po_1", amountMinor: 20_000, feeMinor: 0, at: Date.parse("2027-03-02"), items: [] };
    mustPerform(w.hogar, recordPayout, payout, system);
    const lines: Line[] = [
      { day: "2027-03-01", minor: 15_000, name: "Ada Ash", words: `Invoice ${w.label}` },
      // Two of the same sum on one day, and one of them again.
      { day: "2027-03-02", minor: 4_500, name: "Bo Berg", words: "Thank you" },
      { day: "2027-03-02", minor: 4_500, name: "Cleo Dahl", words: "Thank you" },
      { day: "2027-03-02", minor: 4_500, name: "Cleo Dahl", words: "Thank you" },
      { day: "2027-03-04", minor: 19_940, name: "Card service", words: "Payout" },
      { day: "2027-03-06", minor: -450, name: "The Bank", words: "Fees" },
      { day: "2027-03-08", minor: -15_000, name: "Ada Ash", words: "Account closed", returned: true },
    ];
    expect(await w.takesIn(written(lines.slice(0, 5)))).toBe(0);
    // The file of the whole ten days has the first five again.
    expect(await w.takesIn(written(lines))).toBe(5);
    expect(one(w.hogar, "SELECT count(*) AS n, sum(amount_minor) AS minor FROM bank_lines")).toEqual({
      n: 7,
      minor: 32_990,
    });
    expect(w.take(15_000).ok).toBe(true);
    expect(w.open()).toBe(0);
    expect(w.take(19_940).ok).toBe(true);
    expect(w.take(-15_000).ok).toBe(true);
    const account = { id: null, number: "6855", name: "Bank fees", active: true };
    const { id: accountId } = mustPerform(w.hogar, saveOwnAccount, account, office);
    mustPerform(w.hogar, postBankLine, { lineId: w.line(-450).id, accountId }, office);
    // What nobody owed is posted by a person.
    for (const { id } of w.hogar.store.sql<{ id: number }>("SELECT id FROM bank_lines WHERE state = 'open'").all())
      mustPerform(w.hogar, postBankLine, { lineId: id, accountId }, office);
    expect([w.open(), w.on("bank"), ...w.holds()]).toEqual([15_000, 32_990, null, []]);
    expect(one(w.hogar, "SELECT total_minor AS n FROM invoices ORDER BY id DESC LIMIT 1")).toEqual({ n: 700 });
  });
});
