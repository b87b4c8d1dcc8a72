import { Refusal } from "@/core/problems";
import { keptWith } from "@/store/kept";
import { RateLimiterMemory } from "rate-limiter-flexible";
import { getHogar } from "./hogar";

/**
 * Refused sign-ins are counted by account and address together: whoever guesses shuts out themselves, and not the one they
 * guess at. A browser that has signed in to the account before is counted for itself. Many addresses at one account are
 * slowed down, all the others together.
 */
const perFiveMinutes = (points: number) => new RateLimiterMemory({ points, duration: 300 });
const limits = () =>
  keptWith(getHogar().store, "sign-in limits", () => ({
    ofAccountHere: perFiveMinutes(10),
    fromAddress: perFiveMinutes(60),
    ofAccount: perFiveMinutes(30),
  }));
const slowedMs = 1_500;
const mostWaiting = 20;
let waiting = 0;

export interface Attempt {
  mail: string;
  address: string;
  /** The browser has signed in to this account before. */
  known: boolean;
}

const hereKey = ({ mail, address, known }: Attempt): string =>
  `${known ? "known" : address} ${mail.trim().toLowerCase()}`;

/** Refuses, or slows down, where too much has gone wrong before. */
export async function mayTry(attempt: Attempt): Promise<void> {
  const { ofAccountHere, fromAddress, ofAccount } = limits();
  const used = async (limiter: RateLimiterMemory, key: string) => (await limiter.get(key))?.remainingPoints ?? 1;
  if ((await used(ofAccountHere, hereKey(attempt))) <= 0) throw new Refusal("too-many-tries");
  if (attempt.known) return;
  if ((await used(fromAddress, attempt.address)) <= 0) throw new Refusal("too-many-tries");
  if ((await used(ofAccount, attempt.mail.trim().toLowerCase())) > 0) return;
  if (waiting >= mostWaiting) throw new Refusal("too-many-tries");
  waiting++;
  await new Promise((resolve) => setTimeout(resolve, slowedMs));
  waiting--;
}

/** Counts a try that was refused. */
export async function countFailure(attempt: Attempt): Promise<void> {
  const { ofAccountHere, fromAddress, ofAccount } = limits();
  const count = (limiter: RateLimiterMemory, key: string) => limiter.penalty(key);
  await count(ofAccountHere, hereKey(attempt));
  if (attempt.known) return;
  await count(fromAddress, attempt.address);
  await count(ofAccount, attempt.mail.trim().toLowerCase());
}
