import { matchColumns, missingColumns, valuesOf } from "./match-columns";

describe("columns", () => {
  it("are known by their names, whatever stands between the words", () => {
    const { fields } = matchColumns("customers", {
      columns: ["First name", "SURNAME", "E-mail", "mobile_phone", "Zip", "Shoe size"],
      rows: [["Mira", "Okonjo", "", "", "", "38"]],
    });
    expect(fields).toEqual(["firstName", "lastName", "mail", "phone", "postcode", null]);
  });

  it("are known by what stands in them where their names say nothing", () => {
    const rows = [
      ["Mira", "mira@example.com", "+1 555 0142", "03/11/2026"],
      ["Anton", "anton@example.com", "(555) 0143", "27/11/2026"],
      ["Selma", "", "0155-0144", ""],
    ];
    const found = matchColumns("customers", { columns: ["Name", "A", "B", "C"], rows });
    expect(found).toMatchObject({ fields: ["name", "mail", "phone", "since"], dates: "day first" });
  });

  it("take each field once", () => {
    const { fields } = matchColumns("customers", {
      columns: ["Email", "Mail"],
      rows: [["a@b.example", "c@d.example"]],
    });
    expect(fields).toEqual(["mail", null]);
  });

  it("that are needed are asked for", () => {
    const of = (fields: (string | null)[]) => ({ names: fields.map(String), fields, dates: "day first" as const });
    expect(missingColumns("customers", of(["mail"]))).toBe(
      "Say which column holds: Name, or First name, or Last name, or Company.",
    );
    expect(missingColumns("customers", of(["lastName"]))).toBeNull();
    expect(missingColumns("services", of(["name", "price"]))).toBe("Say which column holds: Minutes.");
  });

  it("give the values of a row by what they are", () => {
    const columns = { names: ["A", "B", "C"], fields: ["name", null, "mail"], dates: "day first" as const };
    expect(valuesOf(columns, [" Mira ", "x"])).toEqual({ name: "Mira", mail: "" });
  });
});
