import { Type } from "@sinclair/typebox";

export const reference = Type.String({ maxLength: 80 });

/** The link of an invoice. */
export const InvoiceToken = Type.String({ maxLength: 100 });
