import { withoutEnd } from "@/core/words";
import { Refusal } from "@/core/problems";
import { dictionary } from "@zxcvbn-ts/language-common";

const shortest = 10;
let common: Set<string> | null = null;

/** What is wrong with a password, in a sentence, or null: too short, among the commonest, or what everybody knows of its owner. */
export function passwordProblem(password: string, about: readonly string[] = []): string | null {
  if (password.length < shortest) return `Choose a password of at least ${shortest} characters.`;
  common ??= new Set(dictionary["passwords-common"]);
  const plain = password.trim().toLowerCase();
  const stem = withoutEnd(plain, /\P{L}/u);
  if (common.has(plain) || common.has(stem) || new Set(plain).size < 4)
    return "This is one of the passwords that are tried first. Choose another, such as a few words that belong together for you.";
  const known = about.flatMap((words) => words.toLowerCase().split(/[^\p{L}\p{N}]+/u)).filter((w) => w.length > 3);
  const left = known.reduce((rest, word) => rest.replaceAll(word, ""), plain);
  return left.length < 6 ? "This is too close to your name or email. Choose another." : null;
}

/** Refuses a password that is easily found. */
export function mustBeGood(password: string, about: readonly string[], field = "/password"): void {
  const problem = passwordProblem(password, about);
  if (problem) throw new Refusal("invalid-input", { fields: { [field]: problem } });
}
