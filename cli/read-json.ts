import { isDate } from "@/core/time/dates";
import { isTimeZone } from "@/core/time/local";
import { parseClock } from "@/core/time/words";
import type { Static, TSchema } from "@sinclair/typebox";
import { Ajv } from "ajv";
import { readFileSync } from "node:fs";
import path from "node:path";

/** Input that cannot be used: one line that says where and what. */
export class BadInput extends Error {
  constructor(where: string, what: string) {
    super(where ? `${where}: ${what}` : what);
  }
}

const formats: Record<string, { is: (text: string) => boolean; what: string }> = {
  date: { is: isDate, what: "a date such as 2027-03-01" },
  clock: { is: (text) => /^\d\d:\d\d$/.test(text) && parseClock(text) !== null, what: "a time such as 09:00" },
  moment: {
    is: (text) =>
      isDate(text.slice(0, 10)) &&
      text[10] === "T" &&
      /^\d\d:\d\d$/.test(text.slice(11)) &&
      parseClock(text.slice(11)) !== null,
    what: "a local time such as 2027-03-01T09:00",
  },
  "time-zone": { is: isTimeZone, what: "a time zone such as Europe/Lisbon" },
};

/** Reads a JSON file (`-` or none: standard input) of the given shape. Throws BadInput. */
export function readJson<S extends TSchema>(file: string | undefined, schema: S): Static<S> {
  const text = readText(file);
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new BadInput(whereInText(text, (error as Error).message), "this is not JSON");
  }
  const ajv = new Ajv({ allowUnionTypes: true, useDefaults: true, verbose: true });
  ajv.addKeyword("patternSentence");
  for (const [name, { is }] of Object.entries(formats)) ajv.addFormat(name, is);
  const validate = ajv.compile(schema);
  if (!validate(value)) {
    // Of a choice that fits nowhere, the deepest complaint is the one that helps.
    const error = [...validate.errors!].sort((a, b) => b.instancePath.length - a.instancePath.length)[0]!;
    const where = pathWords(error.instancePath);
    if (error.keyword === "required") throw new BadInput(where, `“${error.params.missingProperty}” is missing`);
    if (error.keyword === "additionalProperties")
      throw new BadInput(where, `“${error.params.additionalProperty}” is not known here`);
    const wanted =
      error.keyword === "format"
        ? formats[error.params.format as string]!.what
        : (error.message ?? "").replace(/^must (be )?/, "");
    throw new BadInput(where, `wanted ${wanted}, found ${short(error.data)}`);
  }
  return value as Static<S>;
}

function readText(named: string | undefined): string {
  const file = named === undefined || named === "-" ? 0 : path.resolve(process.env.HOGAR_FROM ?? "", named);
  try {
    return readFileSync(file, "utf8");
  } catch (error) {
    throw new BadInput(named ?? "standard input", `cannot be read (${(error as NodeJS.ErrnoException).code})`);
  }
}

/** "/technicians/0/week/mon" as "technicians[0].week.mon". */
export const pathWords = (pointer: string): string =>
  pointer
    .split("/")
    .slice(1)
    .reduce((path, part) => (/^\d+$/.test(part) ? `${path}[${part}]` : path ? `${path}.${part}` : part), "");

function short(value: unknown): string {
  const text = JSON.stringify(value) ?? "nothing";
  return text.length > 60 ? `${text.slice(0, 57)}...` : text;
}

function whereInText(text: string, message: string): string {
  const position = /position (\d+)/.exec(message)?.[1];
  const before = text.slice(0, position === undefined ? text.length : Number(position));
  return `line ${before.split("\n").length}, column ${before.length - before.lastIndexOf("\n")}`;
}
