import { ordinal } from "../words";

/** The job patterns of a repeat by their ids: the usual one (null: what was agreed without one), that of the first date, and that of every so many. */
export interface PatternsOfRepeat {
  usual: number | null;
  first: number | null;
  nth: { every: number; pattern: number } | null;
}

/** The pattern of a date by its place in the rule, 0 for the first: every fourth is the fourth, the eighth and so on, whatever became of those before. */
export const patternAt = ({ usual, first, nth }: PatternsOfRepeat, place: number): number | null => {
  if (place === 0 && first !== null) return first;
  return nth && (place + 1) % nth.every === 0 ? nth.pattern : usual;
};

/** "Small sweep; the first time Full service; every 4th Big sweep". */
export function patternsWords(
  { usual, first, nth }: PatternsOfRepeat,
  nameOf: (pattern: number) => string,
  work: string,
): string {
  const said = [
    usual === null ? work : nameOf(usual),
    first !== null && `the first time ${nameOf(first)}`,
    nth && `every ${ordinal(nth.every)} ${nameOf(nth.pattern)}`,
  ];
  return said.filter(Boolean).join("; ");
}
