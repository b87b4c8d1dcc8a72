import Papa from "papaparse";
import { csvOf } from "./csv";

it("a cell that a spreadsheet would take for a formula is a plain text, whatever comes after its first line", () => {
  for (const cell of ["=1+1", "+1", "-1", "@SUM(A1)", '=HYPERLINK("http://a.example")\nmore', "\n=1+1", "'=1"])
    expect(Papa.parse<string[]>(csvOf(["words"], [[cell]])).data[1]).toEqual([`'${cell}`]);
});
