import { actorOfLink } from "@/kernel/links";
import { calendarResponse, linkEnded } from "@/server/calendar-response";
import { getHogar } from "@/server/hogar";
import { readAs } from "@/server/read";

/** The customer's repeat as a file for their calendar. */
export async function GET(_request: Request, { params }: { params: Promise<{ token: string }> }): Promise<Response> {
  const actor = actorOfLink(getHogar(), (await params).token);
  const calendar = actor && readAs("my-repeat-calendar", {}, actor);
  return calendar?.ok ? calendarResponse(calendar.value, "repeat") : linkEnded();
}
