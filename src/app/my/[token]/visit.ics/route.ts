import { calendarFile } from "@/core/messages/calendar-file";
import { actorOfLink } from "@/operations/links";
import { readBusiness } from "@/store/business";
import { myCalendar } from "@/views/my-visit";
import { look } from "@/views/view";
import { getHogar } from "@/app/server/hogar";

/** The customer's visit as a file for their calendar. */
export async function GET(_request: Request, { params }: { params: Promise<{ token: string }> }): Promise<Response> {
  const hogar = getHogar();
  const actor = actorOfLink(hogar, decodeURIComponent((await params).token));
  const entries = actor && look(hogar, myCalendar, {}, actor);
  if (!entries?.ok) return new Response("This link is no longer valid.", { status: 403 });
  return new Response(calendarFile(entries.value, readBusiness(hogar.store)!.name), {
    headers: {
      "content-type": "text/calendar; charset=utf-8",
      "content-disposition": "attachment; filename=visit.ics",
      "cache-control": "no-store",
    },
  });
}
