import type { Pace, Point } from "@/core/place/points";

/** The outside world, as the application sees it. Each has a stand-in that ships with Hogar and an opening for a real one. */
export interface Gateways {
  /** Null: no card is asked for. */
  cards: CardGateway | null;
  /** Null: cards are typed in, and held to nothing. */
  readers: ReaderGateway | null;
  /** Null: nothing is sent this way, and set-up says so. */
  mail: MessageGateway | null;
  text: TextGateway | null;
  voice: VoiceGateway | null;
  places: PlaceGateway;
  roads: RoadGateway;
}

export interface CardGateway {
  /** Keeps a card for later: answers what charges it from then on, how it is called, and the last month in which it can be charged (YYYY-MM; null where that is unknown). `fingerprint` is the same for the same card (null where the service does not say). The same token is kept once. Null: the token is none of the gateway's. */
  keep(token: string): Promise<KeptCard | null>;
  /** Charges a card token. The same key never charges twice, however often it is asked. Throws when the gateway does not answer. */
  charge(charge: {
    key: string;
    token: string;
    amountMinor: number;
    currency: string;
    description: string;
    how?: CardHow;
  }): Promise<ChargeOutcome>;
  /** How a charge stands now, by its reference: for notices that were lost. A second step that nobody takes is declined some day. Throws when the gateway does not answer. */
  outcome(reference: string): Promise<ChargeOutcome>;
  /** Ends a second step that nobody has taken, so that it can charge no more; one that was taken meanwhile stays. Answers how the charge stands then. Throws when the gateway does not answer. */
  endStep(reference: string): Promise<ChargeOutcome>;
  /** Pays back a part or all of a charge; the same key never pays back twice. */
  refund(refund: { key: string; reference: string; amountMinor: number }): Promise<void>;
  /** What was paid out after the payout of this reference, or at all, the oldest first: what the service kept of each charge in it, and what was given back. Throws when the gateway does not answer. */
  payouts(after: string | null): Promise<Payout[]>;
  /** What paying out at once costs, as a share in basis points; null where the service does not do it. */
  atOnceBp: number | null;
  /** Pays out at once all that has come and was not paid out, less what that costs; the same key does it once. It is among the payouts then. */
  payOutNow(key: string): Promise<void>;
  /** Whether a notice about a charge really comes from the gateway. */
  isGenuine(body: string, signature: string): boolean;
}

interface KeptCard {
  reference: string;
  label: string;
  expires: string | null;
  fingerprint: string | null;
}

/** Card readers of those who are on the road. */
export interface ReaderGateway {
  /** Shows a sum and waits for a card; the same key is shown once. A signed notice brings the card's token. Throws when the gateway does not answer. */
  show(ask: { key: string; amountMinor: number; currency: string }): Promise<void>;
  /** Whether a notice about a card that was held really comes from the gateway. */
  isGenuine(body: string, signature: string): boolean;
}

/** How a card pays: what the service keeps for itself depends on it. */
export type CardHow = "link" | "reader" | "typed" | "on file";

interface Payout {
  reference: string;
  /** What comes to the bank. */
  amountMinor: number;
  /** Kept for paying out at once. */
  feeMinor: number;
  /** Epoch milliseconds. */
  at: number;
  /**
   * Charges by their reference, what was given back by its key, disputes by theirs; amounts that were given back or are held
   * for a dispute are below nothing. What comes again of a dispute that was won is one more of its items, its reference followed by " won".
   */
  items: { kind: "charge" | "refund" | "dispute"; reference: string; grossMinor: number; feeMinor: number }[];
}

/** What the service says of a charge that a customer's bank asks back. */
export interface DisputeNotice {
  reference: string;
  /** The charge's reference. */
  charge: string;
  amountMinor: number;
  reason: string;
  /** The last day on which one can answer. */
  answerBy: string | null;
  state: "open" | "won" | "lost";
}

/** What helps after a decline: trying again later, another card, or nothing. */
type DeclineKind = "later" | "another" | "never";

export type ChargeOutcome =
  | { state: "received"; reference: string }
  /** The token is none of the gateway's: somebody made it up. */
  | { state: "unknown card" }
  | { state: "declined"; reference: string; reason: string; kind?: DeclineKind }
  /** The customer's bank asks for a second step at this address. */
  | { state: "second step"; reference: string; address: string };

export interface OutgoingMessage {
  key: string;
  to: string;
  /** As whom it goes out; absent: as the gateway is set. */
  from?: { name: string; address: string };
  /** Empty but for mail. */
  subject: string;
  body: string;
  /** BCP 47, for whoever reads it aloud. */
  language?: string;
  /** The same as HTML, for mail. */
  html?: string;
  /** For mail: what it answers, and how it was written (RFC 3834, RFC 8058). */
  thread?: { inReplyTo: string; references: string[] };
  written?: "by itself" | "as an answer" | "by hand";
  /** Where one ends such messages with one click. */
  unsubscribe?: string;
  attachments?: { name: string; mime: string; bytes: Buffer }[];
}

/** What became of a message: taken, with the reference that notices and answers will name, or refused at once. */
type Sending = { state: "sent"; reference: string } | { state: "bounced"; problem: string };

export interface MessageGateway {
  /** Whether sending the same key again is harmless. Where it is not, a message whose fate is unknown is left to a person. */
  repeatable: boolean;
  /** Throws when the service does not answer. */
  send(message: OutgoingMessage): Promise<Sending>;
  /** Whether a notice about a message, or an answer, really comes from the service. */
  isGenuine?(body: string, signature: string): boolean;
}

export type TextGateway = MessageGateway;

/** Calls that read their words aloud; keys that are pressed and calls that nobody took come by signed notices. */
export type VoiceGateway = MessageGateway;

export interface Address extends Point {
  id: string;
  line: string;
  postcode: string;
  /** Village, town or district, where the look-up knows it. */
  town?: string;
}

export interface PlaceGateway {
  suggest(text: string, limit: number): Address[];
  find(id: string): Address | null;
  /** Where an address that is not in the list must lie, by its street or postcode; null where that cannot be said. */
  locate(address: { line: string; postcode: string }): (Point & { town?: string }) | null;
}

export interface RoadGateway {
  /** The number of a place: the same place keeps its number while the application runs. `pace` helps those who have to estimate. */
  place(point: Point, pace?: Pace): number;
  /** Driving minutes between two places, without any margin. Whole; 0 only from a place to itself. */
  minutes(from: number, to: number): number;
  /** Grows when an answer given before has changed. */
  revision(): number;
}
