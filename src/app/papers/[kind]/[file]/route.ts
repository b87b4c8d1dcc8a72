import type { Paper } from "@/core/money/papers";
import type { Result } from "@/core/problems";
import { readAs } from "@/server/read";
import { paperResponse } from "@/server/papers/respond";
import { mustBeSignedIn } from "@/server/session";
import type { Actor } from "@/core/people/permissions";

type Asked = { id: number; query: URLSearchParams; actor: Actor };

/** The papers of the office by the first part of their address. */
const papers: Record<string, (asked: Asked) => Result<Paper>> = {
  invoice: ({ id, actor }) => readAs("invoice-paper", { invoiceId: id }, actor),
  "credit-note": ({ id, query, actor }) =>
    readAs("credit-note-paper", { invoiceId: Number(query.get("invoice")), noteId: id }, actor),
  receipt: ({ id, actor }) => readAs("receipt-paper", { paymentId: id }, actor),
  statement: ({ id, query, actor }) =>
    readAs("statement-paper", { customerId: id, from: query.get("from") ?? "", to: query.get("to") ?? "" }, actor),
};

/** A paper for somebody of the office: `/papers/invoice/12.pdf`. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ kind: string; file: string }> },
): Promise<Response> {
  const { kind, file } = await params;
  const [id, format] = file.split(".") as [string, string?];
  const read = Object.hasOwn(papers, kind) ? papers[kind] : undefined;
  if (!read || !/^\d{1,12}$/.test(id)) return new Response("There is no such paper.", { status: 404 });
  const { pathname, searchParams: query } = new URL(request.url);
  const actor = await mustBeSignedIn(pathname);
  return paperResponse(read({ id: Number(id), query, actor }), format ?? "");
}
