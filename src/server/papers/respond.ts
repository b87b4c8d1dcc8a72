import type { Paper } from "@/core/money/papers";
import { paperTitle } from "@/core/money/papers";
import type { Result } from "@/core/problems";
import { readImage } from "@/registry/routes";
import { getHogar } from "../hogar";
import { paperPdf } from "./pdf";
import { paperUbl } from "./ubl";

/** A paper as a file: PDF, or XML where it is an invoice or a credit note; kept by no cache. */
export async function paperResponse(paper: Result<Paper>, format: string): Promise<Response> {
  if (!paper.ok)
    return new Response(paper.problem.sentence, { status: paper.problem.code === "not-allowed" ? 403 : 404 });
  const { value } = paper;
  const name = paperTitle(value)
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-");
  if (format === "pdf") {
    const { mark } = value.seller;
    const pdf = await paperPdf(value, mark ? (readImage(getHogar(), mark) ?? null) : null);
    return new Response(new Uint8Array(pdf), { headers: headersOf("application/pdf", `inline; filename=${name}.pdf`) });
  }
  if (format === "xml" && (value.kind === "invoice" || value.kind === "credit note"))
    return new Response(paperUbl(value), {
      headers: headersOf("application/xml; charset=utf-8", `attachment; filename=${name}.xml`),
    });
  return new Response("There is no such paper.", { status: 404 });
}

const headersOf = (type: string, disposition: string) => ({
  "content-type": type,
  "content-disposition": disposition,
  "cache-control": "no-store",
});
