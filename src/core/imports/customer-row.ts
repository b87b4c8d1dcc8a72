import { phoneKept, phoneProblem } from "../people/phones";
import type { CustomerCard } from "../customers/cards";
import type { Language } from "../messages/languages";
import type { TaxKind } from "../money/papers";
import { type ContactPerson, contactsIn } from "../people/contact-persons";
import { tidy } from "../words";
import type { LocalDate } from "../time/dates";
import { type DateOrder, readDate } from "./dates";

/** A customer as a row of a file tells of them. */
export interface CustomerDraft {
  name: string;
  mail: string;
  phone: string;
  reachedBy: "any" | "email" | "text" | "phone";
  tags: string[];
  source: string;
  paymentDays: number | null;
  technicianNote: string;
  insideNote: string;
  bill: { name: string; mail: string; address: string } | null;
  billing: CustomerCard["billing"];
  /** Null where the file does not say. */
  paymentFrom: CustomerCard["paymentFrom"] | null;
  taxKind: TaxKind | null;
  taxNumber: string;
  language: Language | null;
  contacts: ContactPerson[];
  reminders: boolean | null;
  offers: boolean | null;
  since: LocalDate | null;
  /** `line` and `postcode` as written: where that is has still to be found. */
  site: { line: string; postcode: string; town: string; name: string; access: string; parking: string } | null;
}

/** What is wrong with one cell. */
export interface RowProblem {
  field: string;
  sentence: string;
}

type Values = Record<string, string>;
export interface Reading {
  dates: DateOrder;
  /** The business's own phone: its country is meant where none is written. */
  ownPhone: string;
}

/** Reads the values of a row; what cannot be read is told, cell by cell. Never throws. */
export function customerOf(
  values: Values,
  { dates, ownPhone }: Reading,
): { draft: CustomerDraft; problems: RowProblem[] } {
  const problems: RowProblem[] = [];
  const wrong = (field: string, sentence: string) => void problems.push({ field, sentence });
  const text = (field: string, most: number): string => {
    const value = tidy(values[field] ?? "");
    if (value.length > most) wrong(field, `This is longer than ${most} characters.`);
    return value.slice(0, most);
  };
  const oneOf = <T extends string>(field: string, known: Record<string, T>): T | null => {
    const value = tidy(values[field] ?? "").toLowerCase();
    if (value === "") return null;
    const found = known[value];
    if (found === undefined) wrong(field, `“${short(value)}” is not known. Write ${Object.keys(known).join(", ")}.`);
    return found ?? null;
  };
  const note = (field: string): string => (values[field] ?? "").trim().slice(0, 2000);
  const mail = mailIn(values.mail ?? "");
  if (mail === null) wrong("mail", `“${short(values.mail!)}” is no email address.`);
  const billMail = mailIn(values.billMail ?? "");
  if (billMail === null) wrong("billMail", `“${short(values.billMail!)}” is no email address.`);
  const { phone, also } = phonesIn(values.phone ?? "", ownPhone);
  if (phone === null) wrong("phone", `“${short(values.phone!)}” is no phone number.`);
  const name = nameIn(values);
  if (name === "") wrong("name", "There is no name.");
  else if (name.startsWith("(unreadable)"))
    wrong("name", "This contact cannot be read. Write its name and what is known of it here, or leave it out.");
  else if (name.length > 80) wrong("name", "This name is longer than 80 characters.");
  else if (/\/\/|@|www\./i.test(name)) wrong("name", "A name has no web address in it.");
  else if (isSum(name) && !mail && !phone && !siteIn(values)) wrong("name", "This is a sum, and no customer.");
  const billName = text("billName", 80);
  const billAddress = text("billAddress", 200);
  if (billName === "" && (billMail || billAddress)) wrong("billName", "Bills go somewhere, but to whom?");
  const draft: CustomerDraft = {
    name: name.slice(0, 80),
    mail: mail ?? "",
    phone: phone ?? "",
    reachedBy: reachedByIn(values.reachedBy ?? ""),
    tags: [...new Set((values.tags ?? "").split(/[,;|]/).map(tidy).filter(Boolean))].slice(0, 30),
    source: text("source", 80),
    paymentDays: null,
    technicianNote: note("technicianNote"),
    insideNote: [note("insideNote"), also].filter(Boolean).join("\n").slice(0, 2000),
    bill: billName ? { name: billName, mail: billMail ?? "", address: billAddress } : null,
    billing: oneOf("billing", { job: "job", "each job": "job", month: "month", monthly: "month", hand: "hand" }),
    paymentFrom: oneOf("paymentFrom", { invoice: "invoice", "end of month": "end of month" }),
    taxKind: oneOf("taxKind", {
      standard: "standard",
      normal: "standard",
      "reverse charge": "reverse charge",
      exempt: "exempt",
    }),
    taxNumber: text("taxNumber", 60),
    language: oneOf("language", languageWords),
    contacts: [],
    reminders: null,
    offers: null,
    since: null,
    site: siteIn(values),
  };
  if (draft.taxKind === "reverse charge" && !draft.taxNumber)
    wrong("taxNumber", "Reverse charge needs the customer’s tax number.");
  const contacts = contactsOf(values, draft, ownPhone);
  if (contacts === null) wrong("contacts", "Write one person in a line: name; role; phone; email; what for.");
  else {
    draft.contacts = contacts.slice(0, 12);
    for (const one of contacts) {
      if (one.name.length > 80 || one.role.length > 60 || one.mail.length > 120)
        wrong("contacts", `“${short(one.name)}” is written too long.`);
      if (one.phone && phoneProblem(one.phone, ownPhone))
        wrong("contacts", `“${short(one.phone)}” is no phone number.`);
      if (one.mail && mailIn(one.mail) === null) wrong("contacts", `“${short(one.mail)}” is no email address.`);
    }
  }
  if (draft.tags.some((tag) => tag.length > 40)) wrong("tags", "A tag is longer than 40 characters.");
  const days = (values.paymentDays ?? "").replace(/days?$/i, "").trim();
  if (days !== "") {
    if (/^\d{1,3}$/.test(days) && Number(days) <= 365) draft.paymentDays = Number(days);
    else wrong("paymentDays", "Write a number of days, at most 365.");
  }
  for (const field of ["reminders", "offers"] as const) {
    const value = yesNoIn(values[field] ?? "");
    if (value === "unclear") wrong(field, "Write yes or no.");
    else draft[field] = value;
  }
  if (values.since) {
    draft.since = readDate(values.since, dates);
    if (draft.since === null) wrong("since", `“${short(values.since)}” is no date.`);
  }
  return { draft, problems };
}

/** Languages by what people call them. */
const languageWords: Record<string, Language> = { en: "en", english: "en", es: "es", spanish: "es", español: "es" };

/** Who else is named in a row: in a column for all of them, or in columns of their own. Null where that is not to be read. */
function contactsOf(values: Values, { name, phone }: CustomerDraft, own: string): ContactPerson[] | null {
  const listed = contactsIn(values.contacts ?? "");
  if (listed === null) return null;
  const kept = (cell: string | undefined) => phonesIn(cell ?? "", own).phone ?? tidy(cell ?? "");
  const [second, third, theirs] = [kept(values.phone2), kept(values.phone3), kept(values.contact2Phone)];
  const person = tidy(values.contact2 ?? "").slice(0, 80);
  const base = { mail: "", uses: [] };
  return [
    ...listed.map((one) => ({ ...one, phone: kept(one.phone) })),
    ...[second, third]
      .filter((one) => one && one !== phone)
      .map((one) => ({ ...base, name: name.slice(0, 80), role: "other phone", phone: one })),
    ...(person || theirs || values.contact2Mail
      ? [
          {
            name: person || name.slice(0, 80),
            role: "contact",
            phone: theirs,
            mail: tidy(values.contact2Mail ?? ""),
            uses: [],
          },
        ]
      : []),
  ];
}

const short = (text: string): string => (text.length > 40 ? `${text.slice(0, 40)}…` : text);

/** One column or two; "Okonjo, Mira" is turned round; a company where nobody is named. */
function nameIn(values: Values): string {
  const parts = tidy(`${values.firstName ?? ""} ${values.lastName ?? ""}`);
  const whole = tidy(values.name ?? "") || parts || tidy(values.company ?? "");
  const turned = /^([\p{L}'’-]+), ([\p{L}'’. -]+)$/u.exec(whole);
  return turned ? `${turned[2]} ${turned[1]}` : whole;
}

/** The first of several; empty where there is none, null where it is none. */
function mailIn(text: string): string | null {
  const [first = ""] = text.trim().split(/[\s;,]+/);
  return first === "" || /^[^\s@"<>()]+@[^\s@"<>()]+\.[^\s@.]{2,}$/.test(first) ? first.slice(0, 120) : null;
}

/** The line below a table. */
const isSum = (name: string): boolean => /^(?:grand |sub)?(?:total|totals|sum|summe|gesamt|suma)\b/i.test(name);

/** A number however it is written, with 00 for +; empty where there is none, null where it is none. Further numbers and an extension, in words. */
function phonesIn(text: string, own: string): { phone: string | null; also: string } {
  const [first = "", ...others] = apart(text)
    .map((part) => part.trim())
    .filter(Boolean);
  const extension = /\b(?:ext|extension|x)[. :]{0,2}(\d{1,6})$/i.exec(first);
  const plain = (extension ? first.slice(0, extension.index) : first)
    .replace(/^(?:tel|phone|mobile|home|work)[.:]?\s/i, "")
    .replace(/^tel[.:]?/i, "")
    .trim()
    .replace(/^00(?=[1-9])/, "+")
    .replace("(0)", "");
  const also = [extension && `Extension ${extension[1]}`, others.length && `Also by phone: ${others.join(", ")}`];
  if (plain === "") return { phone: "", also: "" };
  const phone = phoneProblem(plain, own) === null ? phoneKept(plain, own) : null;
  return { phone, also: also.filter(Boolean).join(". ") };
}

/** Several numbers in a cell; a stroke or comma parts them where a whole number stands on both sides of it. */
function apart(text: string): string[] {
  const isWhole = (part: string) => part.replace(/\D/g, "").length >= 6;
  return text.split(/[;|\n]|\sor\s|\sand\s/).flatMap((part) => {
    const parts = part.split(/[/,]/);
    return parts.length > 1 && parts.every(isWhole) ? parts : [part];
  });
}

function siteIn(values: Values): CustomerDraft["site"] {
  const line = tidy([values.houseNumber, values.line].filter(Boolean).join(" "));
  const [town, postcode] = [tidy(values.town ?? ""), tidy(values.postcode ?? "").toUpperCase()];
  if (line === "" && postcode === "") return null;
  const of = (field: string, most: number) => tidy(values[field] ?? "").slice(0, most);
  return {
    line: line.slice(0, 120),
    postcode: postcode.slice(0, 20),
    town: town.slice(0, 60),
    name: of("siteName", 60),
    access: of("access", 600),
    parking: of("parking", 600),
  };
}

function reachedByIn(text: string): CustomerDraft["reachedBy"] {
  const word = text.trim().toLowerCase();
  if (/^e-?mail$/.test(word)) return "email";
  if (/^(text|sms)$/.test(word)) return "text";
  return /^(phone|call|tel\w*)$/.test(word) ? "phone" : "any";
}

function yesNoIn(text: string): boolean | null | "unclear" {
  const word = text.trim().toLowerCase();
  if (word === "") return null;
  if (/^(yes|y|true|1|x|on|ja|sim|oui)$/.test(word)) return true;
  return /^(no|n|false|0|off|nein|não|non)$/.test(word) ? false : "unclear";
}
