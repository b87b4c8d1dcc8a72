import { readAs } from "@/server/read";
import { paperResponse } from "@/server/papers/respond";

/** The invoice of a link as a file, or a credit note of it: `invoice.pdf`, `invoice.xml`, `credit-note-3.pdf`. */
export async function GET(
  _request: Request,
  { params }: { params: Promise<{ token: string; file: string }> },
): Promise<Response> {
  const { token, file } = await params;
  const [name, format = ""] = file.split(".") as [string, string?];
  const note = /^credit-note-(\d{1,12})$/.exec(name);
  const visitor = { kind: "visitor" } as const;
  if (note) return paperResponse(readAs("my-credit-note", { token, noteId: Number(note[1]) }, visitor), format);
  const invoice = readAs("my-invoice", { token }, visitor);
  return paperResponse(
    invoice.ok ? { ok: true, value: invoice.value.paper } : invoice,
    name === "invoice" ? format : "",
  );
}
