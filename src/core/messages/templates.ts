import Mustache from "mustache";
import { fieldOf, type MergeFields, saidFields } from "./fields";
import type { Language } from "./languages";

/** A message's text with merge fields, `{{like_this}}`; what stands in `{{#field}}…{{/field}}` is there only where the field is, and once for each entry of a list; `{{^field}}…{{/field}}` only where it is not. Plain text: nothing is escaped. */
export interface Template {
  subject: string;
  body: string;
}

/** Fills a template's merge fields in a language. A field that is not known is a RangeError that names it, so that no customer ever reads a gap; where one is empty, the words that lead to it go too. */
export function fillTemplate(template: Template, fields: MergeFields, language: Language = "en"): Template {
  const values = saidFields(fields, language);
  return {
    subject: inOneLine(fill(template.subject, values)),
    body: fill(template.body, values),
  };
}

const inOneLine = (text: string): string =>
  text
    .split("\n")
    .map((line) => line.trim())
    .filter(Boolean)
    .join(" ");

/** Names of the merge fields that a text uses, those inside conditions too. */
export const fieldsIn = (text: string): string[] => [...new Set(namesOf(tokensOf(text)))];

/** A piece of a parsed template: its kind, what it names, where it begins and ends, and what stands inside it (Mustache). */
type Token = [kind: string, value: string, from: number, to: number, inside?: Token[] | string];
const tokensOf = (text: string): Token[] => Mustache.parse(text) as unknown as Token[];
/** What stands inside a condition or a list. */
const inside = ([, , , , tokens]: Token): Token[] => (Array.isArray(tokens) ? tokens : []);

const namesOf = (tokens: readonly Token[]): string[] =>
  tokens.flatMap((token) => (token[0] === "text" ? [] : [token[1], ...namesOf(inside(token))]));

function fill(text: string, values: Record<string, unknown>): string {
  const missing = tokensOf(text)
    .filter(([kind]) => kind !== "text" && kind !== "#" && kind !== "^")
    .find(([, name]) => !(name in values));
  if (missing) throw new RangeError(`The merge field {{${missing[1]}}} is not known here`);
  return withoutGaps(
    Mustache.render(text, values, undefined, { escape: (value) => (value === "" ? gap : String(value)) }),
  );
}

/** Stands where a field had nothing in it, until the words around it have closed up. */
const gap = "\u{E000}";
/** Words that lead to a value, and go with it. */
const leading = new Set(
  "at in for to with of from by on your the a until en de del para con por su el la al hasta".split(" "),
);

/** A text in which nothing is seen of a value that was not there: no “at .”, no two spaces, no greeting of nobody. */
function withoutGaps(text: string): string {
  const [first = "", ...rest] = text.split(gap);
  return rest.reduce(closedUp, first);
}

/** Two pieces between which a value is missing. */
function closedUp(before: string, after: string): string {
  let said = withoutEnd(before, " ");
  for (let word = lastWord(said); leading.has(word.toLowerCase()); word = lastWord(said))
    said = withoutEnd(said.slice(0, -word.length), " ");
  let next = withoutBegin(after, " ");
  if (/^[.,;:!?]/.test(next)) {
    // A sentence of which nothing is left has no stop; and no comma stands before one.
    if (said === "" || said.endsWith("\n")) next = withoutBegin(next, ".,;:!? ");
    else said = withoutEnd(said, ",;: ");
    return said + next;
  }
  const isApart = said !== "" && !said.endsWith("\n") && next !== "" && !next.startsWith("\n");
  return isApart ? `${said} ${next}` : said + next;
}

const lastWord = (text: string): string => text.slice(Math.max(text.lastIndexOf(" "), text.lastIndexOf("\n")) + 1);

function withoutEnd(text: string, signs: string): string {
  let end = text.length;
  while (end > 0 && signs.includes(text[end - 1]!)) end--;
  return text.slice(0, end);
}

function withoutBegin(text: string, signs: string): string {
  let begin = 0;
  while (begin < text.length && signs.includes(text[begin]!)) begin++;
  return text.slice(begin);
}

/**
 * What is wrong with a text of the owner's, in sentences: fields that this occasion does not have, fields that may be missing
 * outside a condition, braces and tags that a customer would read. Empty: it may be saved.
 */
export function templateProblems(text: string, allowed: readonly string[]): string[] {
  let tokens: Token[];
  try {
    tokens = tokensOf(text);
  } catch (error) {
    return [unreadable(String(error instanceof Error ? error.message : error))];
  }
  const problems = [...wrongIn(tokens, { allowed, given: [], entry: [] })];
  const plain = textOf(tokens);
  if (/[{}]/.test(plain))
    problems.push("A single brace would be read by the customer: fields are written {{like_this}}.");
  const tag = /<\/?[a-z][^>]*>/i.exec(plain);
  if (tag)
    problems.push(
      `${tag[0]} would be read as it stands: write plain text, and leave an empty line between paragraphs.`,
    );
  return [...new Set(problems)];
}

const textOf = (tokens: readonly Token[]): string =>
  tokens.map((token) => (token[0] === "text" ? token[1] : textOf(inside(token)))).join("");

interface Around {
  allowed: readonly string[];
  /** Fields that are there, because their condition has been asked. */
  given: readonly string[];
  /** Fields of the entry of a list. */
  entry: readonly string[];
}

function* wrongIn(tokens: readonly Token[], around: Around): Generator<string> {
  for (const token of tokens) {
    const [kind, name] = token;
    if (kind === "text" || kind === "!") continue;
    if (kind === ">" || kind === "&" || kind === "{" || kind === "=") {
      yield `{{${kind}${name}…}} cannot be used here.`;
      continue;
    }
    const field = fieldOf(name);
    const isOfEntry = around.entry.includes(name);
    if (!isOfEntry && (!field || !around.allowed.includes(name))) {
      yield field ? `{{${name}}} is not known for this message.` : `There is no field {{${name}}}.`;
      continue;
    }
    if (kind === "name") {
      if (isOfEntry) continue;
      if (field?.of) yield `{{${name}}} is a list: write {{#${name}}} … {{/${name}}} around what is said of each.`;
      else if (field?.mayMiss && !around.given.some((given) => isFormOf(name, given)))
        yield `{{${name}}} may be missing: write {{#${name}}} … {{/${name}}} around the words that need it.`;
      continue;
    }
    yield* wrongIn(inside(token), {
      ...around,
      given: kind === "#" ? [...around.given, name] : around.given,
      entry: kind === "#" && field?.of ? [...around.entry, ...field.of] : around.entry,
    });
  }
}

/** `technician_first` is there where `technician` is. */
const isFormOf = (name: string, given: string): boolean => name === given || name.split("_")[0] === given.split("_")[0];

/** Why Mustache could not read it, in our words. */
function unreadable(message: string): string {
  const section = /Unclosed section "(.+?)"/.exec(message)?.[1];
  if (section) return `{{#${section}}} is not closed: write {{/${section}}} where it ends.`;
  const opened = /Unopened section "(.+?)"/.exec(message)?.[1];
  if (opened) return `{{/${opened}}} closes what was not opened: write {{#${opened}}} where it begins.`;
  return "A field is not closed: fields are written {{like_this}}.";
}
