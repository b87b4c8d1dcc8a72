import { Type } from "@sinclair/typebox";

export const reference = Type.String({ maxLength: 80 });

/** Why the books are set right. */
export const Reason = Type.String({
  minLength: 3,
  maxLength: 300,
  pattern: "\\S",
  patternSentence: "Say why, for the books.",
});

/** The link of an invoice. */
export const InvoiceToken = Type.String({ maxLength: 100 });
