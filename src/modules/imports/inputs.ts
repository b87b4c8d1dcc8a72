import { fieldsOf, type ImportKind } from "@/core/imports/fields";
import { mostColumns, mostRows } from "@/core/imports/table-size";
import { DateText, Id, input, OneOf, OrNull } from "@/kernel/inputs";
import { type Static, Type } from "@sinclair/typebox";

export const importKinds = Object.keys(fieldsOf) as ImportKind[];
export const verdicts = ["wrong", "new", "certain", "likely"] as const;
const Decision = OneOf(["take", "join", "leave out"]);
/** Where a row stands in its file: the first under the head is 1. */
const RowNumber = Type.Integer({ minimum: 1, maximum: mostRows });
const Cells = Type.Array(Type.String({ maxLength: 4000 }), { maxItems: mostColumns });

export const OneImport = input({ importId: Id });
const BalanceOn = input({ cents: Type.Integer(), date: DateText });
export const BeginImport = input({
  kind: OneOf(importKinds),
  file: Type.String({ minLength: 1, maxLength: 200 }),
  columns: input({
    names: Type.Array(Type.String({ maxLength: 80 }), { minItems: 1, maxItems: mostColumns }),
    fields: Type.Array(OrNull(Type.String({ maxLength: 40 })), { minItems: 1, maxItems: mostColumns }),
    dates: OneOf(["day first", "month first"]),
  }),
  rowCount: Type.Integer({ minimum: 1, maximum: mostRows }),
  /** Of a statement of the bank: what it opens and closes with, in hundredths. */
  balances: Type.Optional(
    OrNull(input({ account: Type.String({ maxLength: 60 }), opening: BalanceOn, closing: BalanceOn })),
  ),
});
/** `from`: the number of the first of these rows in the file. */
export const AddImportRows = input({
  importId: Id,
  from: RowNumber,
  rows: Type.Array(Cells, { minItems: 1, maxItems: 500 }),
});
/** Of the rows named, or of all that were found to be `verdict`. */
export const DecideImportRows = input({
  importId: Id,
  numbers: Type.Optional(Type.Array(RowNumber, { maxItems: 500 })),
  verdict: Type.Optional(OneOf(["new", "certain", "likely"])),
  decision: Decision,
});
export const ChangeImportRow = input({ importId: Id, number: RowNumber, cells: Cells });
export type BeginImport = Static<typeof BeginImport>;
