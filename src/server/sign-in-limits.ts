import { Refusal } from "@/core/problems";
import { giveTryBack, type MostTries, takeTry } from "@/kernel/tries";
import { getHogar } from "./hogar";

/**
 * Tries to sign in are counted by account and address together: whoever guesses shuts out themselves, and not the one they
 * guess at. A browser that has signed in to the account before is counted for itself. Many addresses at one account are
 * slowed down, all the others together.
 */
const inFiveMinutes = (most: number): MostTries => ({ most, duringMs: 300_000 });
const [ofAccountHere, fromAddress, ofAccount] = [inFiveMinutes(10), inFiveMinutes(60), inFiveMinutes(30)];
const slowedMs = 1_500;
const mostWaiting = 20;
let waiting = 0;

export interface Attempt {
  mail: string;
  address: string;
  /** The browser has signed in to this account before. */
  known: boolean;
}

interface Counted extends MostTries {
  what: string;
  /** Beyond it is slowed down, and not refused. */
  slows?: true;
}

/** What a try counts for. */
function countedOf({ mail, address, known }: Attempt): Counted[] {
  const account = mail.trim().toLowerCase();
  const here = { what: `sign-in ${known ? "known" : address} ${account}`, ...ofAccountHere };
  return known
    ? [here]
    : [
        here,
        { what: `sign-in from ${address}`, ...fromAddress },
        { what: `sign-in to ${account}`, ...ofAccount, slows: true },
      ];
}

/** Counts a try before the password is looked at; refuses, or slows down, where too many were made. */
export async function countTry(attempt: Attempt): Promise<void> {
  for (const counted of countedOf(attempt)) {
    if (takeTry(getHogar(), counted.what, counted)) continue;
    if (!counted.slows || waiting >= mostWaiting) throw new Refusal("too-many-tries");
    waiting++;
    await new Promise((resolve) => setTimeout(resolve, slowedMs));
    waiting--;
  }
}

/** The try was right, or there was nothing to guess: it counts no more. */
export function forgive(attempt: Attempt): void {
  for (const { what } of countedOf(attempt)) giveTryBack(getHogar(), what);
}
