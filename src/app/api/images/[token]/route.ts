import { readImage } from "@/registry/routes";
import { getHogar } from "@/server/hogar";

/** A kept picture. Its token cannot be guessed, and what it shows never changes. */
export async function GET(_request: Request, { params }: { params: Promise<{ token: string }> }): Promise<Response> {
  const image = readImage(getHogar(), (await params).token);
  if (!image) return new Response("There is no such picture.", { status: 404 });
  return new Response(new Uint8Array(image.bytes), {
    headers: {
      "content-type": image.mime,
      "cache-control": "private, max-age=31536000, immutable",
      "x-content-type-options": "nosniff",
      "content-security-policy": "default-src 'none'",
    },
  });
}
