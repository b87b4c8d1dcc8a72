import type { TSchema } from "@sinclair/typebox";
import { Type } from "@sinclair/typebox";
import { checkInput } from "./check-input";
import { input, Mail, PersonName, Phone } from "./inputs";

/** The sentences by field, and how much of the processor it took to say them, in milliseconds. */
function refused(schema: TSchema, sent: unknown): { fields: unknown; ms: number } {
  const before = process.cpuUsage();
  try {
    checkInput(schema, sent);
    return { fields: {}, ms: 0 };
  } catch (error) {
    const { user, system } = process.cpuUsage(before);
    return { fields: (error as { problem: { fields: unknown } }).problem.fields, ms: (user + system) / 1_000 };
  }
}

const person = input({ name: PersonName, mail: Mail, phone: Phone, zone: Type.String({ format: "time-zone" }) });

describe("input", () => {
  it.each(["a.", "a", "é.", "www", "a@", "1 ", "//"])(
    "of 190,000 letters, such as “%s…”, is refused for its length, and nothing looks into it",
    (part) => {
      const long = part.repeat(190_000 / part.length);
      const { fields, ms } = refused(person, { name: long, mail: long, phone: long, zone: long });
      expect(fields).toEqual({
        "/name": "Write at most 80 characters.",
        "/mail": "Write at most 120 characters.",
        "/phone": "Write at most 80 characters.",
        "/zone": "Write at most 80 characters.",
      });
      // It took a hundred seconds when a format looked into it.
      expect(ms).toBeLessThan(2_000);
    },
  );

  it("of the right length is told what is wrong with it, in the words of its field", () => {
    const { fields } = refused(person, {
      name: "see www.example.com",
      mail: "mira",
      phone: "call me",
      zone: "Atlantis",
    });
    expect(fields).toEqual({
      "/name": "Write the name, without a web or mail address.",
      "/mail": "Write a mail address, such as mira@example.com.",
      "/phone": "Write a phone number, such as +1 555 0142.",
      "/zone": "Write a time zone, such as Europe/Lisbon.",
    });
  });
});
