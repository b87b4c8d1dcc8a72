import type { CardStandin } from "@/gateways/cards-standin";
import type { MailStandin } from "@/gateways/mail";
import type { TextStandin } from "@/gateways/text-standin";
import type { Town } from "@/gateways/town";
import type { Gateways } from "@/gateways/types";
import type { Store } from "@/store/database";

/** The application of one business: its data, its clock and its ways to the outside. */
export interface Hogar {
  store: Store;
  gateways: Gateways;
  standins: { cards: CardStandin; mail: MailStandin | null; text: TextStandin };
  town: Town | null;
  /** Epoch milliseconds: the real time, or the demo's. */
  now: () => number;
  /** Seals sessions and customer links. */
  secret: string;
  /** The address under which customers reach the application. */
  publicUrl: string;
  /** Called when something has been put into the outbox. */
  wake: () => void;
}
