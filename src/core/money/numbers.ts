/** Invoices are numbered from here on, without a gap: each one more than the last. */
const firstInvoiceNumber = 1001;

export const nextInvoiceNumber = (last: number | null): number => (last === null ? firstInvoiceNumber : last + 1);
