import { calendarFile } from "@/core/messages/calendar-file";
import { actorOfLink } from "@/kernel/links";
import { calendarResponse, linkEnded } from "@/server/calendar-response";
import { getHogar } from "@/server/hogar";
import { readAs } from "@/server/read";
import { readBusiness } from "@/store/business";

/** The customer's visit as a file for their calendar. */
export async function GET(_request: Request, { params }: { params: Promise<{ token: string }> }): Promise<Response> {
  const hogar = getHogar();
  const actor = actorOfLink(hogar, (await params).token);
  const entries = actor && readAs("my-calendar", {}, actor);
  if (!entries?.ok) return linkEnded();
  return calendarResponse(calendarFile(entries.value, readBusiness(hogar.store)!.name), "visit");
}
