import { messageOf } from "@/kernel/links";
import { perform } from "@/kernel/operation";
import { noteOpened } from "@/registry/routes";
import { addressOf, isWithin } from "@/server/guard";
import { getHogar } from "@/server/hogar";
import { readBusiness } from "@/store/business";

/** One transparent point. */
const point = Buffer.from("R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7", "base64");

/** A mail was opened: its picture is asked for, where the owner counts that. */
export async function GET(request: Request, { params }: { params: Promise<{ token: string }> }): Promise<Response> {
  const hogar = getHogar();
  const id = messageOf(hogar, (await params).token);
  if (id !== null && readBusiness(hogar.store)?.counts_opened && (await isWithin("pages", addressOf(request.headers))))
    perform(hogar, noteOpened, { messageId: id }, { kind: "system", name: "mail" });
  return new Response(new Uint8Array(point), { headers: { "content-type": "image/gif", "cache-control": "no-store" } });
}
