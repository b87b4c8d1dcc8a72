import { Refusal, type Result } from "@/core/problems";
import { readMailOutside } from "@/gateways/mail-process";
import type { MessageGateway } from "@/gateways/types";
import { ownOrigin, perform } from "@/kernel/operation";
import { keepRecording, noteDelivery, receiveCall, receiveMail, receiveText, takeImage } from "@/registry/routes";
import { bodyOf, jsonFrom } from "./body";
import { answered } from "./guarded";
import { getHogar } from "./hogar";

/** What the services for texts, calls and mail send us: news of what they have taken, and what has come in. */
type Notice =
  | { kind: "state"; reference: string; state: "delivered" | "opened" | "bounced" | "failed"; problem?: string }
  | { kind: "text"; id: string; from: string; body: string; photos?: { base64: string }[] }
  | { kind: "key"; id: string; from: string; pressed: string }
  | {
      kind: "missed";
      id: string;
      from: string;
      seconds: number;
      words?: string;
      recording?: { base64: string; mime: string };
    }
  | { kind: "mail"; raw: string };

const largestNotice = 20_000_000;
const gateway = (name: string) => ({ kind: "system", name: `${name} gateway` }) as const;

/** Takes a signed notice of one of the services. The same one again changes nothing. */
export const takeNotice = (request: Request, channel: "mail" | "text" | "voice"): Promise<Response> =>
  answered(request, async () => {
    const hogar = getHogar();
    const body = (await bodyOf(request, largestNotice, "bad-request")).toString("utf8");
    const service: MessageGateway | null = hogar.gateways[channel];
    if (!service?.isGenuine?.(body, request.headers.get("x-signature") ?? "")) throw new Refusal("bad-request");
    return takeIn(channel, jsonFrom(body) as Notice);
  });

/** The same, for whoever is sure of it. */
export async function takeIn(channel: "mail" | "text" | "voice", notice: Notice): Promise<Result<unknown>> {
  const hogar = getHogar();
  const actor = gateway(channel);
  switch (notice.kind) {
    case "state":
      return perform(
        hogar,
        noteDelivery,
        { channel, reference: notice.reference, state: notice.state, problem: notice.problem ?? "" },
        actor,
      );
    case "text": {
      const photos = await kept((notice.photos ?? []).map(({ base64 }) => Buffer.from(base64, "base64")));
      return perform(
        hogar,
        receiveText,
        { key: `text ${notice.id}`, sender: notice.from, body: notice.body, photos },
        actor,
      );
    }
    case "key": {
      const call = { key: `call ${notice.id}`, sender: notice.from, pressed: notice.pressed };
      return perform(hogar, receiveCall, { ...call, recording: null, seconds: null, words: "" }, actor);
    }
    case "missed": {
      const { recording } = notice;
      const token = recording
        ? keepRecording(hogar, Buffer.from(recording.base64, "base64"), recording.mime, actor)
        : null;
      const call = { key: `call ${notice.id}`, sender: notice.from, pressed: null, recording: token };
      return perform(hogar, receiveCall, { ...call, seconds: notice.seconds, words: notice.words ?? "" }, actor);
    }
    case "mail":
      return takeMail(Buffer.from(notice.raw, "base64"));
    default:
      throw new Refusal("bad-request");
  }
}

/** An email as it came: an answer, a question, or the news that one of ours could not be delivered (RFC 3464). */
export async function takeMail(raw: Buffer): Promise<Result<unknown>> {
  const hogar = getHogar();
  const actor = gateway("mail");
  const mail = await readMailOutside(raw);
  if (mail.report) return perform(hogar, noteDelivery, { channel: "mail", state: "bounced", ...mail.report }, actor);
  // What a machine answers is not answered: nothing of it waits for a person (RFC 3834).
  if (mail.isByMachine) return { ok: true, value: null };
  if (!mail.from) throw new Refusal("bad-request");
  return perform(
    hogar,
    receiveMail,
    {
      key: `mail ${mail.id ?? mail.digest}`.slice(0, 300),
      sender: mail.from,
      senderName: mail.fromName,
      subject: mail.subject,
      body: mail.words,
      mailId: mail.id,
      answers: mail.answers,
      photos: await kept(mail.pictures.map((bytes) => Buffer.from(bytes))),
    },
    actor,
  );
}

const mostPhotos = 10;

/** Pictures that are ones are kept; what is none is left out. */
async function kept(pictures: readonly Buffer[]): Promise<string[]> {
  const tokens: string[] = [];
  for (const bytes of pictures.slice(0, mostPhotos)) {
    const taken = await takeImage(getHogar(), gateway("picture"), "answer", bytes, ownOrigin);
    if (taken.ok) tokens.push(taken.value.token);
  }
  return tokens;
}
