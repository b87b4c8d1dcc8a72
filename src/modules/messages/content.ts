import { type Occasion, kindOf, occasions } from "@/core/messages/occasions";
import { segmentsOf } from "@/core/messages/segments";
import { mailHtml } from "@/gateways/mail-html";
import type { OutgoingMessage } from "@/gateways/types";
import type { Hogar } from "@/kernel/hogar";
import { linkAddressOf, messageToken, sealedToken, shortAddress } from "@/kernel/links";
import { readImage } from "@/modules/pictures/images";
import { readBusiness } from "@/store/business";
import { photosColumn } from "@/store/columns";
import { readFrontDoor } from "@/store/front-door";
import type { Rows } from "@/store/rows";
import { linkPlaceholder, owedPlaceholder, stopPlaceholder } from "./messaging";
import { opensOf } from "./writing";

type MessageRow = Rows["messages"];

/** A message as it leaves the house: its links are real ones, short ones in a text; a mail is HTML too. */
export function contentOf(hogar: Hogar, message: MessageRow): Omit<OutgoingMessage, "key"> {
  const { channel, recipient: to, language, subject } = message;
  const links = linksOf(hogar, message);
  const from = senderOf(hogar, channel);
  const body = filled(message.body, links);
  const base = { to, subject, body, language, ...(from && { from }) };
  if (channel !== "mail") return base;
  const business = readBusiness(hogar.store)!;
  const written = message.written_by === null ? "by itself" : "by hand";
  const html = mailHtml({
    subject,
    body: message.body,
    links,
    language: message.language,
    business: { name: business.name, phone: business.phone, address: business.address },
    mark: business.mark && `${hogar.publicUrl}/api/images/${business.mark}`,
    accent: readFrontDoor(hogar.store).accent,
    who: message.kind === "on the way" ? whoComes(hogar, message) : null,
    opened: business.counts_opened ? openedAddress(hogar, message) : null,
  });
  const answers = answeredBy(hogar, message);
  return {
    ...base,
    html,
    written,
    ...(answers && { thread: { inReplyTo: answers, references: [answers] } }),
    ...(needsConsent(message) && message.customer_id !== null && { unsubscribe: links[stopPlaceholder]! }),
    attachments: photosColumn.read(message.photos).flatMap((token, i) => attachmentOf(hogar, token, i)),
  };
}

/** Who is on the way, where they have a picture. */
function whoComes({ store, publicUrl }: Hogar, { visit_id }: MessageRow): { name: string; photo: string } | null {
  const technician = store
    .sql<{ name: string; photo: string }>(
      `SELECT t.name, t.photo FROM placements p JOIN technicians t ON t.id = p.technician_id
        WHERE p.visit_id = ? AND t.photo IS NOT NULL ORDER BY t.position LIMIT 1`,
    )
    .get(visit_id);
  return technician ? { name: technician.name, photo: `${publicUrl}/api/images/${technician.photo}` } : null;
}

/** A photo or a document that goes along. */
function attachmentOf(hogar: Hogar, token: string, i: number): NonNullable<OutgoingMessage["attachments"]> {
  const image = readImage(hogar, token);
  if (image) return [{ name: `photo-${i + 1}.${image.mime === "image/png" ? "png" : "jpg"}`, ...image }];
  const document = hogar.store
    .sql<{ name: string; mime: string; bytes: Buffer }>("SELECT name, mime, bytes FROM documents WHERE token = ?")
    .get(token);
  return document ? [document] : [];
}

/** Parts that a text is paid for. */
export const partsOf = (channel: string, body: string): number => (channel === "text" ? segmentsOf(body).parts : 0);

/** What stands in a message for each link, and where it leads. */
type Links = Record<string, string>;

function linksOf(hogar: Hogar, message: MessageRow): Links {
  const opens = opensOf(message);
  const own =
    opens === null
      ? hogar.publicUrl
      : message.channel === "text"
        ? shortAddress(hogar, opens)
        : opens.kind === "my"
          ? (linkAddressOf(hogar, opens.id) ?? hogar.publicUrl)
          : `${hogar.publicUrl}/${opens.kind}/${sealedToken(hogar, opens)}`;
  return {
    [linkPlaceholder]: own,
    [owedPlaceholder]:
      message.customer_id === null
        ? hogar.publicUrl
        : `${hogar.publicUrl}/owed/${sealedToken(hogar, { kind: "owed", id: message.customer_id })}`,
    [stopPlaceholder]: `${hogar.publicUrl}/api/stop/${messageToken(hogar, message)}`,
  };
}

const openedAddress = (hogar: Hogar, message: MessageRow): string =>
  `${hogar.publicUrl}/api/opened/${messageToken(hogar, message)}`;

const filled = (body: string, links: Links): string =>
  Object.entries(links).reduce((text, [placeholder, address]) => text.replaceAll(placeholder, () => address), body);

const needsConsent = ({ kind }: MessageRow): boolean =>
  kind in occasions && ["reminders", "offers"].includes(kindOf(kind as Occasion).purpose);

/** As whom a channel sends, where the owner has said so. */
function senderOf({ store }: Hogar, channel: MessageRow["channel"]): OutgoingMessage["from"] | null {
  const sender = store.sql<Rows["senders"]>("SELECT * FROM senders WHERE channel = ?").get(channel);
  if (sender) return { name: sender.name, address: sender.address };
  const business = readBusiness(store)!;
  return channel === "mail" ? { name: business.name, address: business.mail } : null;
}

/** The Message-ID of the email that somebody of the office answers. */
const answeredBy = ({ store }: Hogar, message: MessageRow): string | null =>
  message.written_by === null
    ? null
    : (store
        .sql<{ id: string }>(
          `SELECT mail_id AS id FROM replies WHERE mail_id IS NOT NULL AND sender = ? AND received_at <= ?
            AND (customer_id = ? OR thread_id = ?) ORDER BY id DESC LIMIT 1`,
        )
        .get(message.recipient, message.written_at, message.customer_id, message.thread_id)?.id ?? null);
