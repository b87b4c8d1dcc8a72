import { standins } from "@/server/demo";

/** A file to try the import with. */
export async function GET(_request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  const { name } = await params;
  const bytes = standins().examples.read(name);
  return bytes
    ? new Response(new Uint8Array(bytes), {
        headers: {
          "content-type": "application/octet-stream",
          "content-disposition": `attachment; filename="${name}"`,
          "x-content-type-options": "nosniff",
        },
      })
    : new Response(null, { status: 404 });
}
