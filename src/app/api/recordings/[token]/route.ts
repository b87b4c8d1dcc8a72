import { may } from "@/core/people/permissions";
import { readRecording } from "@/registry/routes";
import { getHogar } from "@/server/hogar";
import { actorOf } from "@/server/session";

/** What somebody has said to the machine, for those who may read conversations. */
export async function GET(request: Request, { params }: { params: Promise<{ token: string }> }): Promise<Response> {
  const actor = await actorOf(request);
  const recording = may(actor, "contacts.see") ? readRecording(getHogar(), (await params).token) : undefined;
  if (!recording) return new Response("There is no such recording.", { status: 404 });
  return new Response(new Uint8Array(recording.bytes), {
    headers: {
      "content-type": recording.mime,
      "cache-control": "private, max-age=3600",
      "x-content-type-options": "nosniff",
    },
  });
}
