/** What somebody is called among colleagues: the first name; of a company the whole name. */
export const shortName = (name: string): string =>
  /[&\d]|\b(and|ltd|sons)\b/i.test(name) ? name : name.split(" ")[0]!;
