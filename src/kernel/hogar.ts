import type { CardStandin } from "@/gateways/cards-standin";
import type { ExampleFiles } from "@/gateways/example-files";
import type { MailStandin } from "@/gateways/mail";
import type { ReaderStandin } from "@/gateways/reader-standin";
import type { TextStandin } from "@/gateways/text-standin";
import type { VoiceStandin } from "@/gateways/voice-standin";
import type { Town } from "@/gateways/town";
import type { Gateways } from "@/gateways/types";
import type { Store } from "@/store/database";
import type { InTurn } from "@/store/write-turns";
import type { Keys } from "./keys";

/** The application of one business: its data, its clock and its ways to the outside. */
export interface Hogar {
  store: Store;
  gateways: Gateways;
  /** Outside services to try things out with: in the demo and in tests only. */
  standins: {
    cards: CardStandin;
    reader: ReaderStandin;
    mail: MailStandin;
    text: TextStandin;
    voice: VoiceStandin;
    examples: ExampleFiles;
  } | null;
  town: Town | null;
  /** Epoch milliseconds: the real time, or the demo's. */
  now: () => number;
  /** Seal sessions and customer links, and hash what is only to be told apart. */
  keys: Keys;
  /** The address under which customers reach the application. */
  publicUrl: string;
  /** Writes in turn with the other threads of this process. */
  inTurn: InTurn;
  /** Called when something has been put into the outbox. */
  wake: () => void;
  /** Lets go of its files: nothing can be asked of it any more. */
  close: () => void;
}
