import { phoneDigits, searchWords } from "./search-words";

const columns = ["name", "mail"];

describe("what is looked for", () => {
  it("is every word, in any of the columns", () => {
    expect(searchWords(" mira  okonjo ", columns, true)).toEqual({
      match: '({name mail} : "mira") AND ({name mail} : "okonjo")',
      short: [],
    });
  });

  it("is a phone number by its digits, without what stands before them", () => {
    expect(["0912 345 678", "+351 912-345", "00351912345", "+44 (0)20 555"].map(phoneDigits)).toEqual([
      "912345678",
      "351912345",
      "351912345",
      "4420555",
    ]);
    expect(searchWords("555 0142", columns, true).match).toBe(
      '(({name mail} : "555" OR phone : "555") AND ({name mail} : "0142" OR phone : "142")) OR (phone : "5550142")',
    );
    expect(searchWords("0912", columns, false).match).toBe('({name mail} : "0912")');
  });

  it("is compared as it is where a word is too short for the index", () => {
    expect(searchWords("li 100%", columns, true)).toEqual({ match: '({name mail} : "100%")', short: ["%li%"] });
    expect(searchWords("a_", columns, true)).toEqual({ match: null, short: ["%a\\_%"] });
  });

  it("never ends the quotes it stands in", () => {
    expect(searchWords(`abc" OR`, columns, true).match).toBe(`({name mail} : "abc""")`);
  });
});
