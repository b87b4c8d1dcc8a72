import { catalogueOf } from "../imports/catalogue-row";
import { matchColumns, valuesOf } from "../imports/match-columns";
import { readFile } from "../imports/read-file";
import { extrasCsv, servicesCsv } from "./csv";

/** What the import makes of a file. */
function readBack(text: string, kind: "services" | "extras") {
  const read = readFile(new TextEncoder().encode(text));
  if (!read.ok) throw new Error(read.sentence);
  const columns = matchColumns(kind, read.table);
  return read.table.rows.map((cells) => catalogueOf(valuesOf(columns, cells), kind, "EUR"));
}

describe("the catalogue as CSV", () => {
  it("is read back as it was: services", () => {
    const sweep = {
      name: "Sweep, with soot",
      code: "SW",
      category: "Sweeping",
      priceMinor: 7950,
      taxBp: 1300,
      minutes: 60,
      description: '- says "clean"',
    };
    expect(readBack(servicesCsv([sweep], "EUR"), "services")).toMatchObject([{ draft: sweep, problems: [] }]);
  });

  it("is read back as it was: extras", () => {
    const cowl = { name: "=Cowl", unit: "piece", priceMinor: 6000, costMinor: 3150, taxBp: 2100 };
    expect(readBack(extrasCsv([cowl], "EUR"), "extras")).toMatchObject([{ draft: cowl, problems: [] }]);
  });
});
