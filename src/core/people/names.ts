/** What somebody is called among colleagues: the first name; of a company the whole name. */
export const shortName = (name: string): string =>
  /[&\d]|\b(and|ltd|sons)\b/i.test(name) ? name : name.split(" ")[0]!;

/** The longest form of a name that has at most so many letters; the shortest where none has. */
export function nameWithin(name: string, letters: number): string {
  const forms = shortForms(name);
  return forms.find((form) => form.length <= letters) ?? forms.at(-1)!;
}

/** A name in fewer and fewer letters: whole, family name, initials; each shorter than the one before. */
export function shortForms(name: string): string[] {
  const words = name.trim().split(/\s+/);
  const initials = words.map((word) => [...word][0]!.toUpperCase()).join("");
  return [name.trim(), words.at(-1)!, initials].filter((form, i, all) => i === 0 || form.length < all[i - 1]!.length);
}
