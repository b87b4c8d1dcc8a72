/** What somebody beside a customer is there for: told of visits like the customer, sent their bills, lets us in. */
export const contactUses = ["visits", "bills", "access"] as const;
export type ContactUse = (typeof contactUses)[number];

export const contactUseWords: Record<ContactUse, string> = {
  visits: "messages about visits",
  bills: "bills",
  access: "letting us in",
};

/** Somebody beside a customer: a second phone, a daughter, a caretaker, an accountant. */
export interface ContactPerson {
  name: string;
  /** What they are to the customer. */
  role: string;
  mail: string;
  phone: string;
  uses: ContactUse[];
}

/** "Rosa Adeyemi (caretaker), +1 555 0143". */
export const contactWords = ({ name, role, phone, mail }: Omit<ContactPerson, "uses">): string =>
  [role ? `${name} (${role})` : name, phone, mail].filter(Boolean).join(", ");

/** Contact persons in one cell of a table, a line each; `contactsIn` reads it back. */
export const contactsCell = (contacts: readonly ContactPerson[]): string =>
  contacts
    .map(({ name, role, phone, mail, uses }) =>
      [name, role, phone, mail, uses.map((use) => contactUseWords[use]).join(", ")].map(plain).join("; "),
    )
    .join("\n");

/** What parts the cell is no part of a name. */
const plain = (text: string): string => text.replace(/[;\n]/g, ",");

/** Contact persons as `contactsCell` writes them, or a name alone; null where a line is none. */
export function contactsIn(cell: string): ContactPerson[] | null {
  const lines = cell.split("\n").filter((line) => line.trim());
  const read = lines.map((line): ContactPerson | null => {
    const [name = "", role = "", phone = "", mail = "", said = ""] = line.split(";").map((part) => part.trim());
    return name === ""
      ? null
      : { name, role, phone, mail, uses: contactUses.filter((use) => said.includes(contactUseWords[use])) };
  });
  return read.includes(null) ? null : (read as ContactPerson[]);
}
