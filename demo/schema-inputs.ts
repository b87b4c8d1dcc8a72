/** As much of a JSON schema as is needed to make inputs of it. */
export interface Schema {
  type?: string;
  const?: unknown;
  enum?: unknown[];
  anyOf?: Schema[];
  items?: Schema;
  properties?: Record<string, Schema>;
  required?: string[];
  minimum?: number;
  pattern?: string;
  format?: string;
}

/** Inputs of a schema: the plainest one, and for each choice it leaves one that makes that choice. Ids are those of what is given. */
export function inputsOf(schema: Schema, ids: readonly number[]): unknown[] {
  if ("const" in schema) return [schema.const];
  if (schema.enum) return [...schema.enum];
  if (schema.anyOf) return schema.anyOf.toReversed().flatMap((one) => inputsOf(one, ids));
  if (schema.type === "integer") return schema.minimum === 1 ? [...ids] : [schema.minimum ?? 0];
  if (schema.type === "boolean") return [false, true];
  if (schema.type === "array") return [[]];
  if (schema.type === "null") return [null];
  if (schema.type === "object") {
    const fields = Object.entries(schema.properties ?? {}).map(([name, of]) => [name, inputsOf(of, ids)] as const);
    const plain = Object.fromEntries(
      fields
        .filter(([name]) => schema.required?.includes(name))
        .map(([name, of]) => [name, name === "size" ? 50 : of[0]]),
    );
    return [plain, ...fields.flatMap(([name, of]) => of.map((value) => ({ ...plain, [name]: value })))];
  }
  return schema.pattern || schema.format ? ["2027-03-10"] : ["", "Lund"];
}

/** Where texts of any words may stand in inputs of a schema, with an input that has a text there, and is plain otherwise. */
export function textsIn(schema: Schema, text: string): { at: string; input: unknown }[] {
  if (schema.anyOf) return schema.anyOf.flatMap((one) => textsIn(one, text));
  if (schema.type === "string" && !schema.enum && !("const" in schema)) return [{ at: "", input: text }];
  if (schema.type === "array" && schema.items)
    return textsIn(schema.items, text).map(({ at, input }) => ({ at: `/0${at}`, input: [input] }));
  if (schema.type !== "object") return [];
  const [plain] = inputsOf(schema, [1]) as [object];
  return Object.entries(schema.properties ?? {}).flatMap(([name, of]) =>
    textsIn(of, text).map(({ at, input }) => ({ at: `/${name}${at}`, input: { ...plain, [name]: input } })),
  );
}
