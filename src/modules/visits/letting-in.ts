import { contactWords } from "@/core/people/contact-persons";
import { contactsColumn } from "@/store/columns";

/** Who lets us in, in words: a line each. */
export const lettingIn = (contacts: string | null): string[] =>
  contacts === null
    ? []
    : contactsColumn
        .read(contacts)
        .filter(({ uses }) => uses.includes("access"))
        .map(({ name, role, phone }) => `Lets us in: ${contactWords({ name, role, phone, mail: "" })}`);
