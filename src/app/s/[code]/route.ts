import { shortLeadsTo } from "@/kernel/links";
import { isWithin, addressOf } from "@/server/guard";
import { getHogar } from "@/server/hogar";

/** A short link of a text: where it leads, while it is good. */
export async function GET(request: Request, { params }: { params: Promise<{ code: string }> }): Promise<Response> {
  if (!(await isWithin("frontDoor", addressOf(request.headers))))
    return new Response("Too many tries. Wait a few minutes and try again.", { status: 429 });
  const path = shortLeadsTo(getHogar(), (await params).code);
  return new Response(null, { status: 302, headers: { location: path ?? "/ended", "cache-control": "no-store" } });
}
