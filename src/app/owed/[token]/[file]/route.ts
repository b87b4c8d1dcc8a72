import { readAs } from "@/server/read";
import { paperResponse } from "@/server/papers/respond";

/** The statement of the account that a link opens: `statement.pdf`. */
export async function GET(
  _request: Request,
  { params }: { params: Promise<{ token: string; file: string }> },
): Promise<Response> {
  const { token, file } = await params;
  const account = readAs("my-account", { token }, { kind: "visitor" });
  return paperResponse(
    account.ok ? { ok: true, value: account.value.statement } : account,
    file === "statement.pdf" ? "pdf" : "",
  );
}
