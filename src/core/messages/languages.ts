import { minorDigits, moneyWords } from "../money/amounts";
import { type LocalDate, numberOf } from "../time/dates";
import { clock, windowWords } from "../time/words";
import type { WorkPlace } from "../visits/work-place";

/** Languages in which customers are written to. */
export const languages = ["en", "es"] as const;
export type Language = (typeof languages)[number];

export const languageNames: Record<Language, string> = { en: "English", es: "Español" };

/** What a language has words of its own for, where messages say values. */
interface Phrases {
  locale: string;
  /** "a, b and c". */
  list: (items: readonly string[]) => string;
  /** "between 09:00 and 11:00", "at 09:30". */
  arrival: (from: number, to: number) => string;
  /** Who comes to whom, in the future and in the present, and where. */
  place: Record<
    WorkPlace,
    {
      promise: string;
      comes: string;
      missed: string;
      where: (of: { site: string; ours: string; phone: string }) => string;
    }
  >;
  /** What all open invoices of theirs come to, with the link to the account where it may be shown. */
  alsoOpen: (amount: string, link: string) => string;
  /** In place of a name of which nobody has shown that it is theirs. */
  somebody: string;
  /** In place of an address that somebody has only typed. */
  yourAddress: string;
  /** In place of a technician where nobody has been chosen. */
  oneOfUs: string;
}

const and = (word: string) => (items: readonly string[]) => items.join(", ").replace(/, ([^,]*)$/, ` ${word} $1`);

const phrasesOf: Record<Language, Phrases> = {
  en: {
    locale: "en-GB",
    list: and("and"),
    arrival: (from, to) => (from === to ? `at ${clock(from)}` : `between ${clock(from)} and ${clock(to)}`),
    place: {
      site: {
        promise: "we will be at your door",
        comes: "we are coming",
        missed: "we were at your door and nobody could let us in",
        where: ({ site }) => `at ${site}`,
      },
      ours: {
        promise: "we expect you",
        comes: "we expect you",
        missed: "we expected you at our place and did not see you",
        where: ({ ours }) => (ours ? `at our place, ${ours}` : "at our place"),
      },
      afar: {
        promise: "we will call you",
        comes: "we will call you",
        missed: "we called and could not reach you",
        where: ({ phone }) => (phone ? `by phone, on ${phone}` : "by phone"),
      },
    },
    alsoOpen: (amount, link) =>
      `With your other invoices, ${amount} is unpaid in all.${link && ` All of them, and a statement of your account: ${link}`}`,
    somebody: "there",
    yourAddress: "your address",
    oneOfUs: "one of us",
  },
  es: {
    locale: "es-ES",
    list: and("y"),
    arrival: (from, to) => (from === to ? `a las ${clock(from)}` : `entre las ${clock(from)} y las ${clock(to)}`),
    place: {
      site: {
        promise: "estaremos en su puerta",
        comes: "vamos",
        missed: "estuvimos en su puerta y nadie pudo abrirnos",
        where: ({ site }) => `en ${site}`,
      },
      ours: {
        promise: "le esperamos",
        comes: "le esperamos",
        missed: "le esperamos en nuestro local y no vino",
        where: ({ ours }) => (ours ? `en nuestro local, ${ours}` : "en nuestro local"),
      },
      afar: {
        promise: "le llamaremos",
        comes: "le llamamos",
        missed: "le llamamos y no pudimos hablar con usted",
        where: ({ phone }) => (phone ? `por teléfono, al ${phone}` : "por teléfono"),
      },
    },
    alsoOpen: (amount, link) =>
      `Con sus otras facturas, quedan ${amount} por pagar en total.${link && ` Todas ellas, y un extracto de su cuenta: ${link}`}`,
    somebody: "",
    yourAddress: "su dirección",
    oneOfUs: "uno de nosotros",
  },
};

/** A service's name, and what it is called in other languages. */
interface NamedIn {
  name: string;
  in: Partial<Record<Language, string>>;
}

/** A value of a message that each language says in its own way. Times are minutes of the day, money is minor units. */
export type Said =
  | { days: readonly LocalDate[] }
  | { dated: LocalDate; window: readonly [from: number, to: number] }
  | { title: string; names: readonly NamedIn[] }
  | { date: LocalDate }
  | { month: LocalDate }
  | { window: readonly [from: number, to: number] }
  | { arrival: readonly [from: number, to: number] }
  | { clock: number }
  | { alsoOpen: number; currency: string; link: string }
  | { minor: number; currency: string; per?: string }
  | { place: WorkPlace; as: "promise" | "comes" | "missed" }
  | { place: WorkPlace; as: "where"; site: string; ours: string; phone: string }
  | { phrase: "somebody" | "yourAddress" | "oneOfUs" };

/** A value as its reader's language says it. */
export function say(value: string | Said, language: Language): string {
  if (typeof value === "string") return value;
  const phrases = phrasesOf[language];
  if ("title" in value) return titled(value, language);
  if ("dated" in value) return `${dated(value.dated, language, dayParts)}, ${windowWords(...value.window)}`;
  if ("days" in value) return phrases.list(value.days.map((day) => dated(day, language, dayParts)));
  if ("date" in value) return dated(value.date, language, { day: "numeric", month: "long", year: "numeric" });
  if ("month" in value) return dated(value.month, language, { month: "long", year: "numeric" });
  if ("window" in value) return windowWords(...value.window);
  if ("arrival" in value) return phrases.arrival(...value.arrival);
  if ("clock" in value) return clock(value.clock);
  if ("alsoOpen" in value) return phrases.alsoOpen(money(value.alsoOpen, value.currency, language), value.link);
  if ("minor" in value)
    return money(value.minor, value.currency, language) + (value.per ? ` ${perWords[language](value.per)}` : "");
  if ("phrase" in value) return phrases[value.phrase];
  const place = phrases.place[value.place];
  return value.as === "where" ? place.where(value) : place[value.as];
}

/** What is done, as `titleOf` says it, with the names of its services in a language; those without one stay. */
function titled({ title, names }: Extract<Said, { title: string }>, language: Language): string {
  // The longer name first: one may begin with another, and may have commas of its own.
  const known = names.filter((one) => one.in[language]).sort((a, b) => b.name.length - a.name.length);
  const parts: string[] = [];
  for (let left = title; left;) {
    const count = /^\d{1,3} × /.exec(left)?.[0] ?? "";
    const rest = left.slice(count.length);
    const own = known.find(({ name }) => rest === name || rest.startsWith(`${name}, `));
    const name = own?.name ?? rest.split(", ", 1)[0]!;
    parts.push(count + (own?.in[language] ?? name));
    left = rest.slice(name.length + 2);
  }
  return parts.join(", ");
}

const dayParts = { weekday: "long", day: "numeric", month: "long" } as const;

const perWords: Record<Language, (per: string) => string> = {
  en: (per) => `a ${per}`,
  es: (per) => ({ visit: "por visita", month: "al mes", year: "al año" })[per] ?? `por ${per}`,
};

const formats = new Map<string, Intl.DateTimeFormat>();
function dated(date: LocalDate, language: Language, parts: Intl.DateTimeFormatOptions): string {
  const key = language + JSON.stringify(parts);
  let format = formats.get(key);
  if (!format) {
    format = new Intl.DateTimeFormat(phrasesOf[language].locale, { ...parts, timeZone: "UTC" });
    formats.set(key, format);
  }
  return format.format(numberOf(date) * 86_400_000).replace(",", "");
}

const amounts = new Map<string, Intl.NumberFormat>();
function money(minor: number, currency: string, language: Language): string {
  if (language === "en") return moneyWords(minor, currency);
  const key = language + currency;
  let format = amounts.get(key);
  if (!format) {
    format = new Intl.NumberFormat(phrasesOf[language].locale, { style: "currency", currency });
    amounts.set(key, format);
  }
  return format
    .format(minor / 10 ** minorDigits(currency))
    .replace("-", "−")
    .replaceAll("\u00a0", " ");
}
