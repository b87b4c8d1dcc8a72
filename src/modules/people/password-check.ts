import { Refusal } from "@/core/problems";
import { lineOf, LineIsFull } from "@/kernel/line";
import { verify } from "@node-rs/argon2";

/**
 * Passwords are looked at by threads of their own, two at a time: that takes its time and memory on purpose, and however many
 * come at once, pages are answered meanwhile. A few more wait; the others try again.
 */
const inLine = lineOf(2, 12);

/** Whether a password is the one of a hash; refused where too many are being looked at. */
export async function isPassword(hash: string, password: string): Promise<boolean> {
  try {
    return await inLine(() => verify(hash, password));
  } catch (error) {
    if (error instanceof LineIsFull) throw new Refusal("too-many-tries");
    throw error;
  }
}
