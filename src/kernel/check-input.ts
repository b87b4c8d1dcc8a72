import { Refusal } from "@/core/problems";
import { isTimeZone } from "@/core/time/local";
import type { Static, TSchema } from "@sinclair/typebox";
import { Ajv, type ErrorObject, type SchemaValidateFunction, type ValidateFunction } from "ajv";
import { fullFormats } from "ajv-formats/dist/formats.js";
import { seenText } from "./seen-text";

const ajv = new Ajv({ allErrors: true, verbose: true, allowUnionTypes: true, validateSchema: false });
ajv.addKeyword("patternSentence");
addLookedInto("format", {
  date: (fullFormats.date as { validate: (text: string) => boolean }).validate,
  email: fullFormats.email as RegExp,
  "time-zone": isTimeZone,
  "web-address": isWebAddress,
  // Nothing that a mail program would make a link of.
  "person-name": (name) => !/\/\/|@|www\.|[\p{L}\d-]{2}\.\p{L}{2,}($|[\s/?#:,])/iu.test(name),
  // As it is typed or pasted; what of it is a number is looked at by whoever keeps it.
  phone: /^[\d+()./\p{Zs}\p{Pd}\u2212\u200B-\u200F\u202A-\u202E\u2060\uFEFF]{5,40}$/u,
});
addLookedInto("pattern");
const validators = new WeakMap<TSchema, ValidateFunction>();

/** The input as the schema wants it, or a refusal with a sentence for each entry. */
export function checkInput<S extends TSchema>(schema: S, input: unknown): Static<S> {
  let validate = validators.get(schema);
  if (!validate) validators.set(schema, (validate = ajv.compile(schema)));
  const copy = copyOf(input);
  if (!validate(copy)) {
    const fields: Record<string, string> = {};
    // Of what is none of several alternatives, the one that says most about it.
    for (const error of [...validate.errors!].sort((a, b) => Number(isVague(a)) - Number(isVague(b))))
      fields[fieldOf(error)] ??= sentenceFor(error);
    throw new Refusal("invalid-input", { fields });
  }
  return copy as Static<S>;
}

function copyOf(input: unknown): unknown {
  try {
    return seenText(input ?? {});
  } catch {
    throw new Refusal("bad-request");
  }
}

type Look = RegExp | ((text: string) => boolean);

/**
 * Formats and patterns look into a text only when it has the length it may have: with all errors wanted, Ajv's own keywords
 * would look into one of 200,000 letters too, after `maxLength` has refused it. Whoever names no length gets `usualLength`.
 */
function addLookedInto(keyword: "format" | "pattern", known?: Record<string, Look>): void {
  ajv.removeKeyword(keyword);
  ajv.addKeyword({
    keyword,
    type: "string",
    schemaType: "string",
    compile(asked: string, parentSchema) {
      const look = known ? known[asked] : new RegExp(asked, "u");
      if (!look) throw new Error(`Nobody knows the format ${asked}`);
      const named = parentSchema.maxLength as number | undefined;
      const most = named ?? usualLength;
      const check: SchemaValidateFunction = (text: string) => {
        const isTooLong = text.length > most;
        check.errors = isTooLong
          ? [{ keyword: "maxLength", params: { limit: most }, parentSchema }]
          : [{ keyword, params: { [keyword]: asked }, parentSchema }];
        // Where a longest length is named, its own keyword says that it is exceeded.
        if (isTooLong) return named !== undefined;
        return typeof look === "function" ? look(text) : look.test(text);
      };
      return check;
    },
  });
}
const usualLength = 80;

/** An address of the web with a name of a host that has parts. */
function isWebAddress(text: string): boolean {
  const url = URL.parse(text);
  return url !== null && /^https?:$/.test(url.protocol) && /^[^.]+(\.[^.]+)+$/.test(url.hostname) && !/\s/.test(text);
}

const isVague = ({ keyword }: ErrorObject): boolean => keyword === "const" || keyword === "anyOf";

const fieldOf = (error: ErrorObject): string =>
  error.keyword === "required" ? `${error.instancePath}/${error.params.missingProperty}` : error.instancePath || "/";

function sentenceFor({ keyword, params, parentSchema }: ErrorObject): string {
  switch (keyword) {
    case "required":
      return "Please fill this in.";
    case "minLength":
      return params.limit <= 1 ? "Please fill this in." : `Write at least ${params.limit} characters.`;
    case "maxLength":
      return `Write at most ${params.limit} characters.`;
    case "minimum":
    case "exclusiveMinimum":
      return `Enter ${params.limit} or more.`;
    case "maximum":
    case "exclusiveMaximum":
      return `Enter ${params.limit} or less.`;
    case "minItems":
      return params.limit === 1 ? "Add at least one." : `Add at least ${params.limit}.`;
    case "maxItems":
      return `At most ${params.limit} are allowed.`;
    case "type":
      return params.type === "integer"
        ? "Enter a whole number."
        : params.type === "number"
          ? "Enter a number."
          : "This is not in the expected form.";
    case "additionalProperties":
      return `“${params.additionalProperty}” is not known here.`;
    case "enum":
    case "const":
    case "anyOf":
      return "Choose one of the options.";
    case "format":
      return formatSentences[params.format as string] ?? "This is not in the expected form.";
    case "pattern":
      return (
        (parentSchema as { patternSentence?: string } | undefined)?.patternSentence ??
        "This is not in the expected form."
      );
    default:
      return "This is not in the expected form.";
  }
}

const formatSentences: Record<string, string> = {
  email: "Write a mail address, such as mira@example.com.",
  date: "Write a date, such as 2027-03-11.",
  "person-name": "Write the name, without a web or mail address.",
  phone: "Write a phone number, such as +1 555 0142.",
  "web-address": "Write an address such as https://marrowick.example.",
  "time-zone": "Write a time zone, such as Europe/Lisbon.",
};
