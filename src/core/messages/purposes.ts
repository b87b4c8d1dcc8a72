/** Ways in which a message goes out. */
export const channels = ["mail", "text", "voice"] as const;
export type Channel = (typeof channels)[number];

/** As people say it. */
export const channelNames: Record<Channel, string> = { mail: "email", text: "text", voice: "phone call" };

/**
 * What a message is for, which decides what it needs: an answer goes out at any hour; a service message is about what was
 * booked; reminders and offers need their customer's consent; what is for our own people needs none.
 */
export type Purpose = "answer" | "service" | "reminders" | "offers" | "ours";

/** Channels on which somebody does not want what they have agreed to otherwise. */
export const channelsOff = (
  withheld: readonly { purpose: string; channel: Channel }[],
  purpose: Purpose,
): Set<Channel> => new Set(withheld.filter((one) => one.purpose === purpose).map(({ channel }) => channel));

/** What a link of its own opens, beside a customer's page: each kind is a page. */
export type LinkKind = "wish" | "quote" | "again" | "invoice" | "owed" | "offer" | "review";
