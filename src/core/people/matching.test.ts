import fc from "fast-check";
import { type Contact, matchOf, sameName } from "./matching";
import { phoneKept, phoneKey, phoneProblem } from "./phones";

const own = "+1 555 0100";
const mira = (more: Partial<Contact> = {}): Contact => ({
  name: "Mira Okonjo",
  mail: "mira@example.com",
  phone: "+1 202 555 0142",
  ...more,
});
const other: Partial<Contact> = { mail: "else@example.com", phone: "+1 202 555 0199" };

describe("matching people", () => {
  it("takes a name written otherwise for the same, and a shorter one not", () => {
    expect(
      ["okonjo, mira", "M. Okonjo", "Mira A. Okonjo", "MÍRA OKONJO"].map((name) => sameName("Mira Okonjo", name)),
    ).toEqual([true, true, true, true]);
    expect(
      ["Mira", "Okonjo", "Mira Okonjou", "Tilda Okonjo", "M. O.", ""].map((name) => sameName("Mira Okonjo", name)),
    ).toEqual([false, false, false, false, false, false]);
  });

  it("is certain by name and mail, or name and phone", () => {
    expect(matchOf(mira(), mira({ phone: other.phone! }), own)).toBe("certain");
    expect(matchOf(mira(), mira({ mail: "else@example.com", phone: "(202) 555-0142", name: "M. Okonjo" }), own)).toBe(
      "certain",
    );
  });

  it("is likely where one of them is the same: a couple; or the name at the same address", () => {
    expect(matchOf(mira(), mira({ name: "Anton Okonjo", phone: other.phone! }), own)).toBe("likely");
    expect(matchOf(mira(), mira({ name: "Anton Lund", mail: other.mail! }), own)).toBe("likely");
    expect(
      matchOf(
        mira({ places: ["12 Alder Road, MW 301"] }),
        mira({ ...other, places: ["3 Quay, MW 101", "12 Alder Road, MW 301"] }),
        own,
      ),
    ).toBe("likely");
    expect(matchOf(mira(), mira(other), own)).toBeNull();
    expect(matchOf(mira(), mira({ ...other, name: "Anton Lund" }), own)).toBeNull();
    expect(matchOf(mira({ mail: "" }), mira({ ...other, name: "Anton Lund", mail: "" }), own)).toBeNull();
  });

  it("does not depend on who came first", () => {
    const contact = fc.record({
      name: fc.constantFrom("Mira Okonjo", "M Okonjo", "Anton Lund", "Mira", "Mira A Okonjo"),
      mail: fc.constantFrom("a@example.com", "A@example.com", "b@example.com", ""),
      phone: fc.constantFrom("+1 202 555 0142", "2025550142", "+351 912 345 678", "123456"),
    });
    fc.assert(fc.property(contact, contact, (a, b) => expect(matchOf(a, b, own)).toBe(matchOf(b, a, own))));
  });
});

describe("phone numbers", () => {
  it("are read with the country of the business, and kept as they are where they cannot be read", () => {
    expect(phoneKept("202 555 0142", "+1 202 555 0100")).toBe("+1 202 555 0142");
    expect(phoneKept("912 345 678", "+351 912 000 000")).toBe("+351 912 345 678");
    expect(phoneKept(" +1  555 0142", own)).toBe("+1 555 0142");
    // Pasted: spaces that do not break, long dashes, marks of direction, 00, and a nought that is not dialled.
    for (const text of [
      "\u202A+1\u00A0202\u00A0555\u20110142\u202C",
      "00 1 202 555–0142".replace("00 ", "00"),
      "+1 (0)202 555 0142",
    ])
      expect([phoneProblem(text, own), phoneKept(text, own)]).toEqual([null, "+1 202 555 0142"]);
    expect(phoneKey("0044 20 7946 0018", "+351 912 000 000").length).toBeGreaterThan(6);
  });

  it("are refused where they cannot be any", () => {
    expect(["12345", "call me", "+1 202 555 0142 0000 0000"].map((text) => phoneProblem(text, own) !== null)).toEqual([
      true,
      true,
      true,
    ]);
    expect(["000000", "0000 0000", "202 555 0142 ext. 4"].every((text) => phoneProblem(text, own) !== null)).toBe(true);
    expect(["+1 555 0142", "(202) 555-0142", "+351 912 345 678"].map((text) => phoneProblem(text, own))).toEqual([
      null,
      null,
      null,
    ]);
  });
});
