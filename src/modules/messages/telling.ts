import { withinAllowedHours } from "@/core/messages/moments";
import type { OpenedBy } from "@/kernel/links";
import type { OperationContext, ViewContext } from "@/kernel/operation";

/** How long what may wake somebody has to wait, in milliseconds: nothing within the allowed hours. */
export const untilAllowed = ({ business, minute }: ViewContext): number =>
  (withinAllowedHours(minute, { from: business.message_from, to: business.message_to }, business.time_zone) - minute) *
  60_000;

/** Somebody who is not a customer yet, as they told us. */
export interface Reach {
  name: string;
  mail: string;
  phone: string;
}

interface Told {
  /** What tells this from all else: it is sent at most once. */
  key: string;
  subject: string;
  /** The mail, between greeting and name. */
  words: string;
  /** The same for a phone, where it is worth one. */
  text?: string;
  /** What the link in the words opens. */
  opens?: OpenedBy;
}

/** Writes to somebody who is not a customer yet: a mail at once, a text within the allowed hours. */
export function tellPerson(
  context: OperationContext,
  { name, mail, phone }: Reach,
  { key, subject, words, text, opens }: Told,
): void {
  const { business } = context;
  const of = opens && { opens };
  // What a stranger typed is sent on by a person who has read it, and not by itself.
  const greeting = context.actor.kind === "person" ? `Hello ${name},` : "Hello,";
  context.later({
    kind: "tell",
    key: `${key}, mail`,
    payload: {
      way: "mail",
      to: mail,
      subject,
      body: `${greeting}\n\n${words}\n\n${business.name}\n${business.phone}\n`,
      ...of,
    },
  });
  if (text)
    context.later({
      kind: "tell",
      key: `${key}, text`,
      afterMs: untilAllowed(context),
      payload: { way: "text", to: phone, subject: "", body: `${business.name}: ${text}`, ...of },
    });
}
