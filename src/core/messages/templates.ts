import Mustache from "mustache";

/** A message's text with merge fields, `{{like_this}}`. Plain text: nothing is escaped. */
export interface Template {
  subject: string;
  body: string;
}

export type MergeFields = Record<string, string>;

/** Fills a template's merge fields. A field that is not known is a RangeError that names it, so that no customer ever reads a gap. */
export function fillTemplate(template: Template, fields: MergeFields): Template {
  return { subject: fill(template.subject, fields), body: fill(template.body, fields) };
}

/** Names of the merge fields that a text uses. */
export const fieldsIn = (text: string): string[] =>
  (Mustache.parse(text) as unknown as [string, string][]).filter(([type]) => type !== "text").map(([, name]) => name);

function fill(text: string, fields: MergeFields): string {
  const missing = fieldsIn(text).find((name) => !(name in fields));
  if (missing) throw new RangeError(`The merge field {{${missing}}} is not known here`);
  return Mustache.render(text, fields, undefined, { escape: (value) => String(value) });
}
