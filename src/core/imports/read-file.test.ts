import fc from "fast-check";
import { readFile } from "./read-file";

const bytesOf = (text: string) => new TextEncoder().encode(text);
const table = (bytes: Uint8Array) => {
  const read = readFile(bytes);
  if (!read.ok) throw new Error(read.sentence);
  return read.table;
};

describe("a file", () => {
  it.each([
    ["commas", "Name,Phone\nMira,555"],
    ["semicolons", "Name;Phone\nMira;555"],
    ["tabs", "Name\tPhone\r\nMira\t555"],
    ["a byte order mark", "\uFEFFName,Phone\nMira,555"],
  ])("is read with %s", (_, text) => {
    expect(table(bytesOf(text))).toEqual({ columns: ["Name", "Phone"], rows: [["Mira", "555"]] });
  });

  it("is read in Latin-1 and in UTF-16 as in UTF-8", () => {
    const latin = Uint8Array.from([..."Name\nMüller Søren"].map((letter) => letter.charCodeAt(0)));
    const wide = new Uint8Array([0xff, 0xfe, ...[..."Name\nSøren"].flatMap((l) => [l.charCodeAt(0), 0])]);
    const turned = new Uint8Array([0xfe, 0xff, ...[..."Name\nSøren"].flatMap((l) => [0, l.charCodeAt(0)])]);
    expect([latin, wide, turned].map((bytes) => table(bytes).rows)).toEqual([
      [["Müller Søren"]],
      [["Søren"]],
      [["Søren"]],
    ]);
  });

  it("may have no head, rows that are too short, and lines with nothing", () => {
    expect(table(bytesOf("Mira Okonjo,mira@example.com,x\n\nAnton,anton@example.com\n,,\n"))).toEqual({
      columns: ["Column 1", "Column 2", "Column 3"],
      rows: [
        ["Mira Okonjo", "mira@example.com", "x"],
        ["Anton", "anton@example.com", ""],
      ],
    });
  });

  it("gives back a plain text that a spreadsheet marked as one", () => {
    expect(table(bytesOf("Name,Phone\nMira,'+1 555\n''t Hooft,'=1\n't Hooft,5")).rows).toEqual([
      ["Mira", "+1 555"],
      ["'t Hooft", "=1"],
      ["'t Hooft", "5"],
    ]);
  });

  it("says what is wrong where there is nothing to read", () => {
    const said = (bytes: Uint8Array) => (readFile(bytes) as { sentence?: string }).sentence;
    expect(said(bytesOf(" \n"))).toBe("This file is empty.");
    expect(said(bytesOf("PK\u0003\u0004…"))).toContain("Save it as CSV or vCard");
    expect(said(bytesOf("BEGIN:VCARD\nVERSION"))).toContain("cannot be read");
    expect(said(bytesOf(`a\n${"b\n".repeat(20_001)}`))).toContain("at most 20000");
  });

  it("of contacts has a row for each, and one more for each further address", () => {
    const card = (lines: string) => `BEGIN:VCARD\r\nVERSION:3.0\r\n${lines}\r\nEND:VCARD\r\n`;
    const text =
      card(
        "N:Okonjo;Mira;;;\r\nTEL;TYPE=HOME:+1 555 0142\r\nEMAIL:mira@example.com\r\nADR:;;1 Mill Lane;Harbourside;;MW 101;\r\nADR:;;2 Quay;;;MW 102;\r\nCATEGORIES:yearly,gas\r\nNOTE:Dog",
      ) + card("FN:Tern & Slate\r\nORG:Tern & Slate;");
    const { columns, rows } = table(bytesOf(text));
    expect(rows.map((row) => Object.fromEntries(columns.map((name, i) => [name, row[i]])))).toMatchObject([
      {
        Name: "Mira Okonjo",
        Phone: "+1 555 0142",
        Address: "1 Mill Lane",
        Town: "Harbourside",
        Postcode: "MW 101",
        Tags: "yearly, gas",
        Note: "Dog",
      },
      { Name: "Mira Okonjo", Address: "2 Quay", Postcode: "MW 102" },
      { Name: "Tern & Slate", Company: "Tern & Slate", Address: "" },
    ]);
  });

  it("of contacts goes on behind one that is broken", () => {
    const text =
      "BEGIN:VCARD\nFN:Broken\nnonsense without a colon\nEND:VCARD\nBEGIN:VCARD\nVERSION:4.0\nFN:Anton\nEND:VCARD\n";
    expect(table(bytesOf(text)).rows.map(([name]) => name)).toEqual(["(unreadable) Broken", "Anton"]);
  });

  it("of any bytes is answered, and every row is as wide as its head", () => {
    const begun = fc.constantFrom("", "\uFEFF", "BEGIN:VCARD\n", 'a,"b\n', "Name;Email\n");
    fc.assert(
      fc.property(begun, fc.uint8Array({ maxLength: 600 }), (start, bytes) => {
        const read = readFile(new Uint8Array([...bytesOf(start), ...bytes]));
        if (!read.ok) return read.sentence.length > 0;
        return read.table.rows.every((row) => row.length === read.table.columns.length);
      }),
      { numRuns: 400 },
    );
  });
});
