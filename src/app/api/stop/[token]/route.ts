import { perform } from "@/kernel/operation";
import { stopByMessage } from "@/registry/routes";
import { addressOf, limit } from "@/server/guard";
import { answered } from "@/server/guarded";
import { getHogar } from "@/server/hogar";

type Asked = { params: Promise<{ token: string }> };

/** One click in a mail program ends such messages (RFC 8058). */
export const POST = (request: Request, { params }: Asked): Promise<Response> =>
  answered(request, async () => {
    await limit("frontDoor", addressOf(request.headers));
    return perform(getHogar(), stopByMessage, { token: (await params).token, stop: true }, { kind: "visitor" });
  });

/** Whoever follows it in a browser is asked first. */
export const GET = async (_request: Request, { params }: Asked): Promise<Response> =>
  new Response(null, { status: 302, headers: { location: `/stop/${(await params).token}` } });
