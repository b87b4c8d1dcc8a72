import { type Minor, roundHalfAway } from "./amounts";

/** What somebody is paid: by the hour, or a salary for a month of so many paid hours; and what the employer adds, in basis points. */
export interface Pay {
  kind: "none" | "hourly" | "salary";
  amountMinor: Minor;
  /** Paid hours a month; for a salary. */
  hours: number;
  employerBp: number;
}

/** What an hour costs the business, all in; null where no pay is known. */
export function loadedCost({ kind, amountMinor, hours, employerBp }: Pay): Minor | null {
  if (kind === "none") return null;
  const hour = kind === "hourly" ? amountMinor : amountMinor / Math.max(1, hours);
  return roundHalfAway((hour * (10_000 + employerBp)) / 10_000);
}

/** The mean cost of an hour of those who could do some work; `usual` where none of theirs is known. */
export function meanCost(pays: readonly Pay[], usual: Minor): Minor {
  const known = pays.map(loadedCost).filter((cost) => cost !== null);
  return known.length ? roundHalfAway(known.reduce((a, b) => a + b, 0) / known.length) : usual;
}
