import { readAs } from "@/server/read";
import { paperResponse } from "@/server/papers/respond";

/** The quote of a link as PDF. */
export async function GET(_request: Request, { params }: { params: Promise<{ token: string }> }): Promise<Response> {
  return paperResponse(readAs("quote-paper", { token: (await params).token }, { kind: "visitor" }), "pdf");
}
