import type { Actor } from "@/core/people/permissions";
import type { Hogar } from "@/kernel/hogar";
import { linkAddressOf, type OpenedBy, ownLinkPlaceholder, sealedToken } from "@/kernel/links";
import { mustPerform } from "@/kernel/operation";
import { linkPlaceholder } from "@/modules/messages/messaging";
import { recordDelivery } from "@/modules/messages/operations/record-delivery";
import { recordKeptCard } from "@/modules/money/operations/cards";
import { recordCharge, recordRefund } from "@/modules/money/operations/record-outcomes";

export const worker: Actor = { kind: "system", name: "worker" };

/** One kind of thing done outside: it does it, and takes down what came of it. */
export interface Effect {
  /** False where doing it twice could harm: then an attempt whose end is unknown is left to a person. */
  repeatable: (hogar: Hogar, payload: never) => boolean;
  carryOut: (hogar: Hogar, payload: never, key: string) => Promise<void>;
  /** Where nothing more will be tried. */
  giveUp: (hogar: Hogar, payload: never, problem: string) => void;
}

interface ChargePayload {
  chargeKey: string;
  token: string;
  amountMinor: number;
  currency: string;
  description: string;
}

const charge: Effect = {
  repeatable: () => true,
  async carryOut(hogar, { chargeKey, ...charge }: ChargePayload) {
    const outcome = await hogar.gateways.cards.charge({ key: chargeKey, ...charge });
    mustPerform(hogar, recordCharge, { chargeKey, outcome }, worker);
  },
  // Whether the card was charged is not known: the payment stays "asked" and is shown to a person.
  giveUp: () => {},
};

interface RefundPayload {
  refundKey: string;
  reference: string;
  amountMinor: number;
}

const refund: Effect = {
  repeatable: () => true,
  async carryOut(hogar, { refundKey, reference, amountMinor }: RefundPayload) {
    await hogar.gateways.cards.refund({ key: refundKey, reference, amountMinor });
    mustPerform(hogar, recordRefund, { refundKey }, worker);
  },
  giveUp: () => {},
};

interface KeepCardPayload {
  customerId: number;
  jobId: number;
  token: string;
}

const keepCard: Effect = {
  repeatable: () => true,
  async carryOut(hogar, { token, ...of }: KeepCardPayload) {
    mustPerform(hogar, recordKeptCard, { ...of, ...(await hogar.gateways.cards.keep(token)) }, worker);
  },
  // Then there is no card on file, and the customer enters one the next time.
  giveUp: () => {},
};

interface TellPayload {
  way: "mail" | "text";
  to: string;
  subject: string;
  body: string;
  /** The wish or quote whose link stands in the text. */
  opens?: OpenedBy;
}

/** A mail or text that is not kept with a customer: to the office, or to somebody who waits. */
const tell: Effect = {
  repeatable: (hogar, { way }: TellPayload) => hogar.gateways[way].repeatable,
  async carryOut(hogar, { way, to, subject, body, opens }: TellPayload, key) {
    const link = opens ? `${hogar.publicUrl}/${opens.kind}/${sealedToken(hogar, opens)}` : "";
    await hogar.gateways[way].send({ key, to, subject, body: body.replaceAll(ownLinkPlaceholder, link) });
  },
  giveUp: () => {},
};

interface MessagePayload {
  messageId: number;
}

interface MessageRow {
  channel: "mail" | "text";
  recipient: string;
  subject: string;
  body: string;
  job_id: number | null;
}

const messageOf = (hogar: Hogar, id: number) =>
  hogar.store.sql<MessageRow>("SELECT * FROM messages WHERE id = ?").get(id)!;

const message: Effect = {
  repeatable: (hogar, { messageId }: MessagePayload) => hogar.gateways[messageOf(hogar, messageId).channel].repeatable,
  async carryOut(hogar, { messageId }: MessagePayload, key) {
    const { channel, recipient, subject, body, job_id } = messageOf(hogar, messageId);
    const link = (job_id === null ? null : linkAddressOf(hogar, job_id)) ?? hogar.publicUrl;
    const state = await hogar.gateways[channel].send({
      key,
      to: recipient,
      subject,
      body: body.replaceAll(linkPlaceholder, link),
    });
    mustPerform(hogar, recordDelivery, { messageId, state }, worker);
  },
  giveUp: (hogar, { messageId }: MessagePayload) =>
    mustPerform(hogar, recordDelivery, { messageId, state: "not known" }, worker),
};

export const effects: Record<string, Effect> = { charge, refund, "keep card": keepCard, tell, message };
