/** What happened with a customer's account. */
export interface AccountEntry {
  kind:
    | "invoice"
    | "credit note"
    | "payment"
    | "allocation"
    | "released"
    | "refund asked"
    | "refund"
    | "write-off"
    | "cash handed over"
    | "reversal"
    | "tips paid"
    | "gateway fee"
    | "payout"
    | "payout arrived"
    | "dispute"
    | "dispute won"
    | "dispute lost"
    | "bank line";
  invoice: string | null;
  note: string | null;
  method: string | null;
}

/** An entry of a customer's account in one line. */
export function entryWords({ kind, invoice, note, method }: AccountEntry): string {
  switch (kind) {
    case "invoice":
      return `Invoice ${invoice}`;
    case "credit note":
      return `Credit note ${note}, for invoice ${invoice}`;
    case "payment":
      return `Payment, ${method === "bank" ? "transfer" : method}`;
    case "refund asked":
      return `Refund, ${method === "bank" ? "transfer" : method}`;
    case "write-off":
      return `Written off, invoice ${invoice}`;
    case "reversal":
      return invoice === null ? `Payment taken back, ${method}` : `Write-off taken back, invoice ${invoice}`;
    default:
      return kind;
  }
}
