import { calendarFile } from "@/core/messages/calendar-file";
import { actorOfLink } from "@/kernel/links";
import { getHogar } from "@/server/hogar";
import { readAs } from "@/server/read";
import { readBusiness } from "@/store/business";

/** The customer's visit as a file for their calendar. */
export async function GET(_request: Request, { params }: { params: Promise<{ token: string }> }): Promise<Response> {
  const hogar = getHogar();
  const actor = actorOfLink(hogar, (await params).token);
  const entries = actor && readAs("my-calendar", {}, actor);
  if (!entries?.ok) return new Response("This link is no longer valid.", { status: 403 });
  return new Response(calendarFile(entries.value, readBusiness(hogar.store)!.name), {
    headers: {
      "content-type": "text/calendar; charset=utf-8",
      "content-disposition": "attachment; filename=visit.ics",
      "cache-control": "no-store",
    },
  });
}
