import fc from "fast-check";
import { isDate } from "../time/dates";
import { catalogueOf } from "./catalogue-row";
import { customerOf } from "./customer-row";
import { dateOrderOf, readDate } from "./dates";
import { fieldsOf } from "./fields";
import { sameName } from "../people/matching";

const reading = { dates: "day first" as const, ownPhone: "+1 555 0100" };
const draft = (values: Record<string, string>) => customerOf({ name: "Mira Okonjo", ...values }, reading).draft;
const wrong = (values: Record<string, string>) =>
  customerOf({ name: "Mira Okonjo", ...values }, reading).problems.map((p) => p.field);

describe("a row of a customer", () => {
  it("has its name in one column, in two, turned round, or only a company", () => {
    const name = (values: Record<string, string>) => customerOf(values, reading).draft.name;
    expect([
      name({ name: "  Mira   Okonjo " }),
      name({ firstName: "Mira", lastName: "Okonjo" }),
      name({ name: "Okonjo, Mira" }),
      name({ company: "Tern & Slate" }),
      name({ name: "Quay House, Ltd & Sons 2" }),
    ]).toEqual(["Mira Okonjo", "Mira Okonjo", "Mira Okonjo", "Tern & Slate", "Quay House, Ltd & Sons 2"]);
    expect(customerOf({}, reading).problems).toEqual([{ field: "name", sentence: "There is no name." }]);
  });

  it("has one phone number, however it is written", () => {
    const written = ["+1 202 555 0142", "(202) 555-0142", "001 202 555 0142", "tel: 202.555.0142 or 555 0143"];
    expect(new Set(written.map((phone) => draft({ phone }).phone))).toEqual(new Set(["+1 202 555 0142"]));
    expect(wrong({ phone: "ask Anton" })).toEqual(["phone"]);
  });

  it("has the first of several emails, tags in any list, and bills that go somewhere", () => {
    expect(
      draft({
        mail: "mira@example.com; home@example.com",
        tags: "yearly; gas, yearly",
        billName: "Quay Agents",
        billMail: "b@q.example",
      }),
    ).toMatchObject({
      mail: "mira@example.com",
      tags: ["yearly", "gas"],
      bill: { name: "Quay Agents", mail: "b@q.example", address: "" },
    });
    expect(wrong({ mail: "mira at home" })).toEqual(["mail"]);
    expect(wrong({ billMail: "b@q.example" })).toEqual(["billName"]);
  });

  it("says yes and no, how to be reached and days to pay in words that people use", () => {
    expect(draft({ reminders: "Y", offers: "no", reachedBy: "SMS", paymentDays: "30 days" })).toMatchObject({
      reminders: true,
      offers: false,
      reachedBy: "text",
      paymentDays: 30,
    });
    expect(draft({})).toMatchObject({ reminders: null, offers: null, reachedBy: "any", paymentDays: null });
    expect(wrong({ reminders: "perhaps", paymentDays: "soon" })).toEqual(["paymentDays", "reminders"]);
  });

  it("has a site where there is an address, with the house number in front", () => {
    expect(draft({ houseNumber: "12", line: "Mill Lane", town: "Harbourside", postcode: "mw 101" }).site).toMatchObject(
      {
        line: "12 Mill Lane",
        town: "Harbourside",
        postcode: "MW 101",
      },
    );
    expect(draft({ town: "Harbourside" }).site).toBeNull();
  });

  it("of any cells is answered, and never throws", () => {
    const cells = fc.dictionary(fc.constantFrom(...fieldsOf.customers.map((f) => f.id)), fc.string({ unit: "binary" }));
    fc.assert(
      fc.property(cells, (values) => {
        const { draft: read, problems } = customerOf(values, reading);
        return problems.some((p) => p.field === "name") || (read.name !== "" && read.name.length <= 80);
      }),
    );
  });
});

describe("a written date", () => {
  it("is read both ways, as the column says", () => {
    expect(readDate("03/11/2026", "day first")).toBe("2026-11-03");
    expect(readDate("03/11/2026", "month first")).toBe("2026-03-11");
    expect(["2026-11-03", "3.11.26", "3 Nov 2026", "2026/11/03 10:00"].map((d) => readDate(d, "day first"))).toEqual(
      Array(4).fill("2026-11-03"),
    );
    expect([readDate("31/02/2026", "day first"), readDate("soon", "day first")]).toEqual([null, null]);
  });

  it("tells the order of its column where it can be read in one way only", () => {
    expect([
      dateOrderOf(["03/04/2026", "11/25/2026"]),
      dateOrderOf(["03/04/2026"]),
      dateOrderOf(["25/11/2026"]),
    ]).toEqual(["month first", "day first", "day first"]);
  });

  it("is a date of the calendar or none", () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(..."0123456789./- NovJan") }), (text) => {
        const date = readDate(text, "day first");
        return date === null || isDate(date);
      }),
    );
  });
});

describe("a row of the catalogue", () => {
  const read = (values: Record<string, string>, kind: "services" | "extras" | "prices" = "services") =>
    catalogueOf({ name: "Sweep", price: "79", minutes: "60", ...values }, kind, "EUR");

  it("has amounts as they are written anywhere", () => {
    const written = ["79", "79.50", "€ 79,50", "1.234,50", "1,234.50", "1234"];
    expect(written.map((price) => read({ price }).draft.priceMinor)).toEqual([
      7900, 7950, 7950, 123_450, 123_450, 123_400,
    ]);
    expect(read({ price: "on request" }).problems).toMatchObject([{ field: "price" }]);
    expect(read({ price: "-5" }).problems).toMatchObject([{ field: "price" }]);
  });

  it("has its length in minutes or hours", () => {
    expect(["90", "90 min", "1:30", "1,5 h"].map((minutes) => read({ minutes }).draft.minutes)).toEqual(
      Array(4).fill(90),
    );
    expect(read({ minutes: "a while" }).problems).toMatchObject([{ field: "minutes" }]);
    expect(read({ minutes: "" }, "extras").problems).toEqual([]);
  });

  it("says what is missing or odd", () => {
    expect(read({ name: "", price: "", tax: "a lot", code: "1" }).problems.map((p) => p.field)).toEqual([
      "name",
      "code",
      "price",
      "tax",
    ]);
    expect(read({ name: "", code: "sw" }, "prices").draft).toMatchObject({ code: "SW", taxBp: null });
  });
});

describe("phones, sums and names as people write them", () => {
  const reading = { dates: "day first" as const, ownPhone: "+1 202 555 0100" };
  const read = (values: Record<string, string>) => customerOf({ name: "Ada Ash", ...values }, reading);

  it.each([
    ["(202) 555-0142 ext. 12", "+1 202 555 0142", "Extension 12"],
    ["202-555-0142 x7", "+1 202 555 0142", "Extension 7"],
    ["202 555 0142 / 202 555 0143", "+1 202 555 0142", "Also by phone: 202 555 0143"],
    ["202 555 0142, 202 555 0143", "+1 202 555 0142", "Also by phone: 202 555 0143"],
    ["mobile 202 555 0142", "+1 202 555 0142", ""],
  ])("%s", (phone, kept, also) => {
    const { draft, problems } = read({ phone });
    expect([draft.phone, draft.insideNote, problems]).toEqual([kept, also, []]);
  });

  it("keep what was noted before beside them", () => {
    expect(read({ phone: "202 555 0142 ext 3", insideNote: "Nice dog" }).draft.insideNote).toBe(
      "Nice dog\nExtension 3",
    );
  });

  it("keep every column of phones, and who else is named, beside the first", () => {
    const { draft, problems } = read({
      phone: "202 555 0142",
      phone2: "202 555 0143",
      contact2: "Rosa Adeyemi",
      contact2Phone: "202 555 0144",
    });
    expect(problems).toEqual([]);
    expect(draft.contacts.map(({ name, role, phone }) => [name, role, phone])).toEqual([
      ["Ada Ash", "other phone", "+1 202 555 0143"],
      ["Rosa Adeyemi", "contact", "+1 202 555 0144"],
    ]);
    expect(read({ contacts: `Rosa; ${"x".repeat(61)}; ; ` }).problems).toMatchObject([{ field: "contacts" }]);
    expect(read({ contact2: "Rosa", contact2Mail: "rosa at home" }).problems).toMatchObject([{ field: "contacts" }]);
  });

  it("say of a contact that cannot be read that it is wrong", () => {
    expect(read({ name: "(unreadable) Mira" }).problems).toMatchObject([{ field: "name" }]);
  });

  it("take no sum below a table for a customer, but somebody who is called so", () => {
    expect(customerOf({ name: "Total: 120" }, reading).problems).toMatchObject([{ field: "name" }]);
    expect(customerOf({ name: "Total Homes", mail: "total@example.com" }, reading).problems).toEqual([]);
  });

  it("see Müller and Mueller, Strauß and Strauss as one name", () => {
    expect([sameName("Jörg Müller", "Joerg Mueller"), sameName("Ida Strauß", "Ida Strauss")]).toEqual([true, true]);
    expect(sameName("Mira Moller", "Mira Muller")).toBe(false);
  });
});
