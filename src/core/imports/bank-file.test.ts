import { bankLineOf, numberSameLines } from "./bank-row";
import { balanceSays, endsOf } from "./running-balance";
import { gapBetween } from "./statement-balances";
import { matchColumns, missingColumns, valuesOf } from "./match-columns";
import { readFile } from "./read-file";

const bytes = (text: string) => new TextEncoder().encode(text);

/** The lines of a file, as an import reads them. */
function linesOf(text: string) {
  const read = readFile(bytes(text));
  if (!read.ok) throw new Error(read.sentence);
  const table = numberSameLines(read.table, matchColumns("bank lines", read.table));
  const columns = matchColumns("bank lines", table);
  expect(missingColumns("bank lines", columns)).toBeNull();
  return table.rows.map((row) => bankLineOf(valuesOf(columns, row), { dates: columns.dates, currency: "EUR" }));
}
const plainly = (text: string) =>
  linesOf(text).map(({ draft: { date, amountMinor, name, words } }) => [date, amountMinor, name, words]);

const entry = (inner: string) => `<Ntry>${inner}</Ntry>`;
const camt = (version: string, entries: string) =>
  `<?xml version="1.0" encoding="UTF-8"?>
  <Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.${version}"><BkToCstmrStmt><GrpHdr><MsgId>1</MsgId></GrpHdr>
  <Stmt><Id>1</Id><Bal><Amt Ccy="EUR">100.00</Amt></Bal>${entries}</Stmt></BkToCstmrStmt></Document>`;

const came =
  entry(`<Amt Ccy="EUR">79.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts>BOOK</Sts><BookgDt><Dt>2027-03-20</Dt></BookgDt>
  <AcctSvcrRef>B1</AcctSvcrRef><NtryDtls><TxDtls><Refs><EndToEndId>NOTPROVIDED</EndToEndId></Refs>
  <RltdPties><Dbtr><Nm>Ada Ash</Nm></Dbtr><Cdtr><Nm>Our Business</Nm></Cdtr></RltdPties>
  <RmtInf><Ustrd>Invoice 2027-0013</Ustrd></RmtInf></TxDtls></NtryDtls>`);
const wentOut = entry(`<Amt Ccy="EUR">4.5</Amt><CdtDbtInd>DBIT</CdtDbtInd><Sts><Cd>BOOK</Cd></Sts>
  <BookgDt><DtTm>2027-03-21T23:10:00+01:00</DtTm></BookgDt><NtryRef>B2</NtryRef>
  <NtryDtls><TxDtls><RltdPties><Cdtr><Pty><Nm>The Bank</Nm></Pty></Cdtr></RltdPties></TxDtls></NtryDtls><AddtlNtryInf>Fees</AddtlNtryInf>`);
const waiting = entry(
  `<Amt Ccy="EUR">9.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts>PDNG</Sts><BookgDt><Dt>2027-03-22</Dt></BookgDt>`,
);
const batch =
  entry(`<Amt Ccy="EUR">65.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts>BOOK</Sts><BookgDt><Dt>2027-03-20</Dt></BookgDt><AcctSvcrRef>B3</AcctSvcrRef>
  <NtryDtls>${[
    ["40.00", "Mira Okonjo", "RF18 2027 0014"],
    ["25.00", "Bo Berg", "RF07 2027 0015"],
  ]
    .map(
      ([
        amount,
        name,
        reference,
      ]) => `<TxDtls><Amt Ccy="EUR">${amount}</Amt><RltdPties><Dbtr><Nm>${name}</Nm></Dbtr></RltdPties>
      <RmtInf><Strd><CdtrRefInf><Ref>${reference}</Ref></CdtrRefInf></Strd></RmtInf></TxDtls>`,
    )
    .join("")}</NtryDtls>`);

describe("a statement as CAMT.053", () => {
  it.each(["02", "08"])("is read with both signs, names and what it says (version %s)", (version) => {
    expect(plainly(camt(version, came + wentOut))).toEqual([
      ["2027-03-20", 7_900, "Ada Ash", "Invoice 2027-0013"],
      ["2027-03-21", -450, "The Bank", "Fees"],
    ]);
  });

  it("gives a line for each transaction of a batch", () => {
    expect(plainly(camt("02", batch))).toEqual([
      ["2027-03-20", 4_000, "Mira Okonjo", "RF18 2027 0014"],
      ["2027-03-20", 2_500, "Bo Berg", "RF07 2027 0015"],
    ]);
    expect(new Set(linesOf(camt("02", batch)).map(({ draft }) => draft.key)).size).toBe(2);
  });

  it("keeps what the bank has taken of a batch as a line of its own", () => {
    const kept = batch.replace('<Amt Ccy="EUR">65.00</Amt>', '<Amt Ccy="EUR">63.80</Amt>');
    expect(plainly(camt("02", kept)).at(-1)).toEqual(["2027-03-20", -120, "", "Charges of the bank"]);
    expect(plainly(camt("02", kept)).reduce((all, [, minor]) => all + Number(minor), 0)).toBe(6_380);
  });

  it("names whoever had paid what is returned, and says that it is, and why", () => {
    const returned = entry(`<Amt Ccy="EUR">79.00</Amt><CdtDbtInd>DBIT</CdtDbtInd><RvslInd>true</RvslInd><Sts>BOOK</Sts>
      <BookgDt><Dt>2027-03-24</Dt></BookgDt><AcctSvcrRef>B9</AcctSvcrRef><NtryDtls><TxDtls>
      <RltdPties><Dbtr><Nm>Ada Ash</Nm></Dbtr><Cdtr><Nm>Our Business</Nm></Cdtr></RltdPties>
      <RtrInf><Rsn><Cd>AC04</Cd></Rsn><AddtlInf>Account closed</AddtlInf></RtrInf></TxDtls></NtryDtls>`);
    expect(plainly(camt("02", returned))).toEqual([["2027-03-24", -7_900, "Ada Ash", "RETURNED AC04 Account closed"]]);
  });

  it("tells two payments of one sum on one day apart, whatever stands for a reference in both", () => {
    const paid = (name: string, words: string) =>
      entry(`<Amt Ccy="EUR">45.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts>BOOK</Sts><BookgDt><Dt>2027-03-20</Dt></BookgDt>
      <AcctSvcrRef>NONREF</AcctSvcrRef><NtryDtls><TxDtls><RltdPties><Dbtr><Nm>${name}</Nm></Dbtr></RltdPties>
      <RmtInf><Ustrd>${words}</Ustrd></RmtInf></TxDtls></NtryDtls>`);
    const lines =
      paid("Ada Ash", "Thanks") + paid("Bo Berg", "Thanks") + paid("Bo Berg", "Thanks") + paid("Bo Berg", "Again");
    expect(new Set(linesOf(camt("02", lines)).map(({ draft }) => draft.key)).size).toBe(4);
  });

  it("says where its balances and its lines disagree, and where a statement is missing between two", () => {
    const balance = (code: string, amount: string, day: string) =>
      `<Bal><Tp><CdOrPrtry><Cd>${code}</Cd></CdOrPrtry></Tp><Amt Ccy="EUR">${amount}</Amt><CdtDbtInd>CRDT</CdtDbtInd><Dt><Dt>${day}</Dt></Dt></Bal>`;
    const statement = (opening: string, closing: string, day: string) =>
      `</Stmt><Stmt><Id>2</Id>${balance("OPBD", opening, day)}${balance("CLBD", closing, day)}${came}`;
    const says = (...statements: string[]) => {
      const read = readFile(bytes(camt("02", statements.join(""))));
      return read.ok ? read.says : [read.sentence];
    };
    expect(says(statement("100.00", "179.00", "2027-03-20"), statement("179.00", "258.00", "2027-03-21"))).toEqual([]);
    expect(says(statement("100.00", "199.00", "2027-03-20"))).toEqual([expect.stringContaining("does not add up")]);
    expect(says(statement("100.00", "179.00", "2027-03-20"), statement("200.00", "279.00", "2027-03-22"))).toEqual([
      expect.stringContaining("A statement is missing"),
    ]);
  });

  it("says where a statement is missing between two files of one account, and nothing where they overlap", () => {
    const file = (opening: string, from: string, closing: string, until: string) => {
      const balance = (code: string, amount: string, day: string) =>
        `<Bal><Tp><CdOrPrtry><Cd>${code}</Cd></CdOrPrtry></Tp><Amt Ccy="EUR">${amount}</Amt><CdtDbtInd>CRDT</CdtDbtInd><Dt><Dt>${day}</Dt></Dt></Bal>`;
      const read = readFile(bytes(camt("02", balance("OPBD", opening, from) + balance("CLBD", closing, until) + came)));
      return read.ok ? read.balances! : null;
    };
    const march = file("100.00", "2027-03-20", "179.00", "2027-03-20");
    expect(gapBetween(march, file("179.00", "2027-03-21", "258.00", "2027-03-21"))).toEqual([]);
    expect(gapBetween(march, file("21.00", "2027-03-23", "100.00", "2027-03-24"))).toEqual([
      expect.stringMatching(/closed with 179.00 on 20 March 2027, and this one opens with 21.00 on 23 March 2027/),
    ]);
    expect(gapBetween(march, file("21.00", "2027-03-10", "100.00", "2027-03-24"))).toEqual([]);
    expect(gapBetween(null, march)).toEqual([]);
  });

  it("leaves what is not booked yet", () => {
    expect(plainly(camt("02", came + waiting))).toHaveLength(1);
    expect(readFile(bytes(camt("02", waiting)))).toMatchObject({ ok: false });
  });

  it.each(["<Ntry", "</Document>", "<Document>"])("says so where it is cut off or none: %s", (cut) => {
    expect(readFile(bytes(camt("02", came).replace("<BkToCstmrStmt>", cut)))).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("cannot be read"),
    });
  });

  it("refuses a line in another currency", () => {
    expect(linesOf(camt("02", came.replace("EUR", "CHF")))[0]!.problems).toMatchObject([{ field: "currency" }]);
  });
});

describe("a statement as CSV", () => {
  it("is read with one column of amounts with signs, or one for each direction", () => {
    expect(
      plainly("Date;Amount;Name;Text\n20.03.2027;1.079,00;Ada Ash;2027-0013\n21.03.2027;-4,50;The Bank;Fees\n"),
    ).toEqual([
      ["2027-03-20", 107_900, "Ada Ash", "2027-0013"],
      ["2027-03-21", -450, "The Bank", "Fees"],
    ]);
    expect(plainly("Date,Description,Paid in,Paid out\n2027-03-20,2027-0013,79.00,\n2027-03-21,Fees,,4.50\n")).toEqual([
      ["2027-03-20", 7_900, "", "2027-0013"],
      ["2027-03-21", -450, "", "Fees"],
    ]);
  });

  it.each([
    ["4.50-", -450],
    ["(4.50)", -450],
    ["−4.50", -450],
    ["+4.50", 450],
    ["€ 4,50", 450],
    ["-€4.50", -450],
  ])("reads %s", (written, minor) => {
    const [one] = linesOf(`Date;Amount;Text\n2027-03-20;${written};x\n`);
    expect([one!.draft.amountMinor, one!.problems]).toEqual([minor, []]);
  });

  it("says what is wrong with a row, and with no other", () => {
    const [wrong, right] = linesOf("Date;Amount;Text\n2027-13-20;much;x\n2027-03-20;1;y\n");
    expect(wrong!.problems.map(({ field }) => field)).toEqual(["date", "amount"]);
    expect(right!.problems).toEqual([]);
  });

  it("tells lines apart that read alike on one day, the same way in every file", () => {
    const twice = "Date;Amount;Text\n2027-03-20;5;coffee\n2027-03-20;5;coffee\n";
    const keys = (text: string) => linesOf(text).map(({ draft }) => draft.key);
    expect(new Set(keys(twice)).size).toBe(2);
    expect(keys(`${twice}2027-03-21;5;coffee\n`).slice(0, 2)).toEqual(keys(twice));
  });
});

describe("a balance that runs along the lines of a CSV", () => {
  const says = (rows: string[]) => {
    const read = readFile(bytes(["Date;Amount;Name;Balance", ...rows].join("\n")));
    if (!read.ok) throw new Error(read.sentence);
    return balanceSays(read.table, matchColumns("bank lines", read.table), "EUR");
  };
  const rows = [
    "2027-03-01;45.00;Ada Ash;145.00",
    "2027-03-01;-145.00;Rent;0.00",
    "2027-03-02;10.00;Bo Berg;10.00",
    "2027-03-03;-30.50;Shop;-20.50",
  ];

  it("agrees with them in either order", () => {
    expect([says(rows), says(rows.toReversed())]).toEqual([[], []]);
  });

  it("says between which rows a line is missing, or stands twice", () => {
    expect(says(rows.filter((_, i) => i !== 2))).toEqual([
      expect.stringContaining("from 0.00 in row 2 to -20.50 in row 3"),
    ]);
    expect(says([rows[0]!, rows[0]!, ...rows.slice(1)])).toHaveLength(1);
  });

  it("says what a file opens and closes with, in either order", () => {
    const ends = (lines: readonly string[]) => {
      const read = readFile(bytes(["Date;Amount;Name;Balance", ...lines].join("\n")));
      return read.ok ? endsOf(read.table, matchColumns("bank lines", read.table), "EUR") : null;
    };
    const both = {
      account: "",
      opening: { cents: 10_000, date: "2027-03-01" },
      closing: { cents: -2_050, date: "2027-03-03" },
    };
    expect([ends(rows), ends(rows.toReversed()), ends(["2027-03-01;45.00;Ada Ash;unknown"])]).toEqual([
      both,
      both,
      null,
    ]);
  });

  it("is not looked at where it cannot be read, or where there is none", () => {
    expect(says(["2027-03-01;45.00;Ada Ash;unknown", "2027-03-02;45.00;Ada Ash;1"])).toEqual([]);
  });
});
