import { as, post } from "./http";
import type { Pair } from "./pair";
import { go } from "./server";

export const dayAfter = (date: string, n: number): string =>
  new Date(Date.parse(date) + n * 86_400_000).toISOString().slice(0, 10);
const isWorkday = (date: string) => ![0, 6].includes(new Date(date).getUTCDay());
/** So long it may take until the worker has told, charged and followed. */
export const frames = 2_400;

/** What is owed, and by whom it is collected. */
export function owedIn(pair: Pair) {
  const openOn = (invoiceId: number) =>
    pair.app.sql<{ n: number }>("SELECT open_minor AS n FROM invoice_balances WHERE invoice_id = ?", invoiceId)[0]!.n;

  /** The demo's own today, and a workday some days ahead of it. */
  function dueAhead(): string {
    const [{ now }] = pair.app.sql<{ now: number }>("SELECT demo_offset_ms AS now FROM business") as [{ now: number }];
    const today = new Date(Date.now() + now).toISOString().slice(0, 10);
    return [3, 4, 5].map((n) => dayAfter(today, n)).find(isWorkday)!;
  }

  /** Somebody with a card that pays, who has agreed that it is charged by itself. */
  const somebody = (nth: number) =>
    pair.app.sql<{ id: number; jobId: number; name: string }>(
      `SELECT c.id, k.job_id AS jobId, c.name FROM cards k JOIN customers c ON c.id = k.customer_id
        WHERE k.collects = 1 AND k.removed_at IS NULL AND k.label LIKE '%1006' AND c.mail <> '' ORDER BY c.id`,
    )[nth]!;

  /** An invoice made by the office. */
  async function invoiceOf(customerId: number, unitMinor: number, dueDate: string): Promise<number> {
    const line = { description: "Stove rope", quantity: 1, unitMinor, taxBp: 2_100, discountBp: 0 };
    const form = {
      customerId,
      lines: [line],
      discountBp: 0,
      before: "",
      after: "",
      dueDate,
      key: `due ${customerId} ${unitMinor}`,
    };
    const made = await post<{ invoiceId: number }>(
      `${pair.app.url}/api/operations/make-invoice`,
      form,
      await as(pair.app.url, "odile"),
    );
    expect(made.problem).toBeUndefined();
    return made.value.invoiceId;
  }

  /** The page that the link of an invoice opens. */
  async function openInvoice(invoiceId: number): Promise<void> {
    const { url } = pair.app;
    const link = await post<{ address: string }>(
      `${url}/api/operations/copy-invoice-link`,
      { invoiceId },
      await as(url, "odile"),
    );
    await go(pair.door, url + new URL(link.value.address).pathname);
  }

  return { openOn, dueAhead, somebody, invoiceOf, openInvoice };
}
