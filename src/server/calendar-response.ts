/** A calendar file to be saved; what a link opens is kept by no cache. */
export const calendarResponse = (text: string, name: string): Response =>
  new Response(text, {
    headers: {
      "content-type": "text/calendar; charset=utf-8",
      "content-disposition": `attachment; filename=${name}.ics`,
      "cache-control": "no-store",
    },
  });

export const linkEnded = (): Response => new Response("This link is no longer valid.", { status: 403 });
