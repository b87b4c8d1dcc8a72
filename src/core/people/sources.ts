/** Where customers come from: told by the end of the link they came by, `/book?from=harbour-fair`. */
export const slugOf = (words: string): string =>
  words
    .normalize("NFKD")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 50);

const other = "other: ";

/** What a job keeps of where it came from: a known slug, `other: …` with what stood there in plain letters, or nothing. */
export function sourceOf(from: string | null | undefined, known: (slug: string) => boolean): string {
  const slug = slugOf(from ?? "");
  return slug === "" ? "" : known(slug) ? slug : other + slug;
}

/** A kept source as people read it. */
export const sourceWords = (source: string, nameOf: (slug: string) => string | undefined): string =>
  source === "" ? "not known" : source.startsWith(other) ? source : (nameOf(source) ?? source);
