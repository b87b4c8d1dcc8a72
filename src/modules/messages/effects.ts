import { hourMs } from "@/core/horizons";
import { kindOf, type Occasion, occasions } from "@/core/messages/occasions";
import { triedUntil, type Unsent } from "@/core/messages/usefulness";
import { defineEffect, nothing, opened } from "@/kernel/effects";
import { type OpenedBy, sealedToken } from "@/kernel/links";
import { mustPerform } from "@/kernel/operation";
import { seenByWorker, worker } from "@/kernel/scheduled";
import { channelsColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { contentOf, partsOf } from "./content";
import { putOffMessage, recordDelivery } from "./operations/record-delivery";
import { whetherToSend } from "./sending";

const text = Type.String();

interface TellPayload {
  to: string;
  subject: string;
  body: string;
  /** As earlier versions have asked for it: a text, or with the link of a wish or a quote. */
  way?: "mail" | "text";
  opens?: OpenedBy;
}

/** A mail that is kept nowhere, since there is a secret in it: a code. */
const tell = defineEffect<TellPayload>(
  { to: text, subject: text, body: text, way: Type.Optional(text), opens: Type.Optional(Type.Object({ kind: text })) },
  (hogar, { way = "mail", opens, body, ...message }, askedAt) => ({
    repeatable: hogar.gateways[way]?.repeatable ?? true,
    async carryOut(key) {
      const link = opens ? `${hogar.publicUrl}/${opens.kind}/${sealedToken(hogar, opens, way)}` : "";
      await hogar.gateways[way]?.send({ key, ...message, body: body.replaceAll("{{own_link}}", link) });
    },
    // A code is over by then.
    triedUntil: askedAt + hourMs,
    giveUp: nothing,
  }),
);

/** A mail, a text or a call that is kept. Whether it may go is asked now: what has changed since it was written counts. */
const message = defineEffect<{ messageId: number }>({ messageId: Type.Integer() }, (hogar, { messageId }) => {
  const row = hogar.store.sql<Rows["messages"]>("SELECT * FROM messages WHERE id = ?").get(messageId);
  const gateway = row ? hogar.gateways[row.channel] : null;
  return {
    repeatable: gateway?.repeatable ?? true,
    async carryOut(key) {
      // Its customer was erased, or it has been dealt with before.
      if (row?.state !== "waiting") return;
      if (!("goes" in whetherToSend(seenByWorker(hogar), row)))
        return void mustPerform(hogar, putOffMessage, { messageId }, worker);
      const content = contentOf(hogar, row);
      const sending = await opened(gateway, row.channel).send({ key, ...content });
      const parts = partsOf(row.channel, content.body);
      mustPerform(hogar, recordDelivery, { messageId, ...sending, parts }, worker);
    },
    triedUntil: row ? triedUntil(unsentOf(row)) : 0,
    // Another way may still work, where it is known that this one did not.
    giveUp: (how) =>
      mustPerform(hogar, recordDelivery, { messageId, state: how, problem: "It could not be sent in time" }, worker),
  };
});

const unsentOf = ({ kind, written_at, window_from, channels_left }: Rows["messages"]): Unsent => ({
  purpose: kind in occasions ? kindOf(kind as Occasion).purpose : "service",
  ofDebt: kind in occasions && kindOf(kind as Occasion).ofDebt === true,
  writtenAt: written_at,
  windowFrom: window_from === null ? null : window_from * 60_000,
  hasOtherWay: channelsColumn.read(channels_left).length > 0,
});

export const messageEffects = { tell, message };
