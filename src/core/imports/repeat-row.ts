import { moneyWords, parseMoney } from "../money/amounts";
import { ruleFromWords } from "../repeats/read-words";
import { datesOfRule, type Recurrence } from "../repeats/recurrence";
import { recurrenceWords } from "../repeats/rule-words";
import { addDays, type LocalDate } from "../time/dates";
import { dayShort, parseClock, windowWords } from "../time/words";
import { tidy } from "../words";
import type { RowProblem } from "./customer-row";
import { type DateOrder, readDate } from "./dates";

/** A repeat as a row of a file tells of it; what the file does not say is null or empty. */
export interface RepeatDraft {
  customer: string;
  mail: string;
  phone: string;
  site: string;
  service: string;
  rule: Recurrence | null;
  /** Its first date from the wished day on. */
  start: LocalDate | null;
  /** Minutes of the day. */
  window: { from: number; to: number } | null;
  technician: string;
  priceMinor: number | null;
}

/** Reads the values of a row; what cannot be read is told, cell by cell. A day that is past begins with the next date. Never throws. */
export function repeatOf(
  values: Record<string, string>,
  { dates, currency, today }: { dates: DateOrder; currency: string; today: LocalDate },
): { draft: RepeatDraft; problems: RowProblem[] } {
  const problems: RowProblem[] = [];
  const wrong = (field: string, sentence: string) => void problems.push({ field, sentence });
  const text = (field: string) => tidy(values[field] ?? "").slice(0, 200);
  const [customer, mail, phone] = [text("name"), text("mail"), text("phone")];
  if (!customer && !mail && !phone) wrong("name", "Say whose it is: a name, an email or a phone.");
  if (!text("service")) wrong("service", "Say which service comes back.");

  const writtenStart = text("start");
  const wished = writtenStart === "" ? addDays(today, 1) : readDate(writtenStart, dates);
  if (wished === null) wrong("start", `“${writtenStart.slice(0, 40)}” is no date.`);
  const writtenRule = text("rule");
  const rule = wished === null ? null : ruleFromWords(writtenRule, wished);
  if (wished !== null && rule === null)
    wrong("rule", `“${writtenRule.slice(0, 60)}” is no rule we know, such as “every 4 weeks” or an RRULE.`);
  const start = rule && wished ? firstAhead(rule, wished, today) : null;
  if (rule && !start) wrong("rule", "It has no date that is still to come.");

  const window = windowIn(text("window"));
  if (window === "unclear") wrong("window", "Write a window such as 9–11 or 09:00–11:00.");
  const writtenPrice = text("price");
  const priceMinor = writtenPrice === "" ? null : parseMoney(writtenPrice.replace(/[^\d.,]/g, ""), currency);
  if (writtenPrice !== "" && priceMinor === null) wrong("price", `“${writtenPrice.slice(0, 40)}” is no amount.`);
  return {
    draft: {
      customer,
      mail,
      phone,
      site: text("site"),
      service: text("service"),
      rule,
      start,
      window: window === "unclear" ? null : window,
      technician: text("technician"),
      priceMinor,
    },
    problems,
  };
}

/** The first date of a rule that began on a day, from tomorrow on: what has been is not brought in. */
function firstAhead(rule: Recurrence, start: LocalDate, today: LocalDate): LocalDate | null {
  const from = start > today ? start : addDays(today, 1);
  return datesOfRule(rule, start, from, addDays(from, 3660), 1)[0] ?? null;
}

/** "9-11", "09:00–11:00", "9 to 11" and "9 am - 11 am"; null where nothing is said. */
function windowIn(written: string): { from: number; to: number } | null | "unclear" {
  if (written === "") return null;
  const ends = written.split(/[-–—]|to|until/i).map((end) => end.trim());
  const [from, to] = ends.map((end) => (/^\d{1,2}$/.test(end) ? parseClock(`${end}:00`) : parseClock(end)));
  return ends.length === 2 && from != null && to != null && from <= to ? { from, to } : "unclear";
}

const datesShown = 4;

/** What it will be: service, rule in words, window, technician and price, and the first dates. */
export function repeatDetails(
  { service, site, rule, start, window, technician, priceMinor }: RepeatDraft,
  currency: string,
): string[] {
  const dates =
    rule && start ? datesOfRule({ ...rule, count: null }, start, start, addDays(start, 3660), datesShown) : [];
  return [
    service,
    site,
    rule && start ? recurrenceWords(rule, start) : "",
    window ? windowWords(window.from, window.to) : "",
    technician,
    priceMinor === null ? "" : `${moneyWords(priceMinor, currency)} a visit`,
    dates.length ? `${dates.map((date) => `${dayShort(date)} ${date.slice(0, 4)}`).join(", ")} …` : "",
  ].filter(Boolean);
}
