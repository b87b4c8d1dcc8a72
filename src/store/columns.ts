import type { ChecklistItem, TickedItem } from "@/core/catalogue/checklist";
import type { Item } from "@/core/catalogue/items";
import type { QuoteOption } from "@/core/catalogue/quotes";
import type { KeptAnswer, Question } from "@/core/catalogue/questions";
import type { Audience } from "@/core/customers/audience";
import type { CustomerFilter } from "@/core/customers/filter";
import type { Terms } from "@/core/catalogue/terms";
import type { StatementBalances } from "@/core/imports/statement-balances";
import type { Columns } from "@/core/imports/match-columns";
import type { RowProblem } from "@/core/imports/customer-row";
import type { PricedLine } from "@/core/money/amounts";
import { type Language, languages } from "@/core/messages/languages";
import type { Meaning } from "@/core/messages/answers";
import type { QuickAnswer } from "@/core/messages/quick-answers";
import type { MergeFields } from "@/core/messages/fields";
import type { CampaignTexts } from "@/core/messages/campaign-texts";
import type { Channel, LinkKind } from "@/core/messages/purposes";
import type { ContactPerson } from "@/core/people/contact-persons";
import type { Permission, Role } from "@/core/people/permissions";
import type { Area } from "@/core/place/zones";
import type { RepeatEvery } from "@/core/repeats/rule";
import type { OpenSpan } from "@/core/time/opening";
import type { SkillNeed } from "@/core/windows/skills";
import type { ChosenWindow, Wish } from "@/core/windows/wishes";
import { type TSchema, Type } from "@sinclair/typebox";
import { jsonColumn } from "./json-column";
import type { Rows } from "./rows";

/** Every column that holds a list or an object, by what it holds. */

const text = Type.String();
const whole = Type.Integer();
const objects = (properties: Record<string, TSchema>) => Type.Array(Type.Object(properties));

/** A row as the audit keeps it. */
export const jsonRowColumn = jsonColumn<Record<string, unknown>>(Type.Object({}));
/** Names, towns, origins. */
export const wordsColumn = jsonColumn<string[]>(Type.Array(text));
/** Tokens under which pictures are kept. */
export const photosColumn = jsonColumn<string[]>(Type.Array(text));
/** What something is called in other languages, by language. */
export const otherNamesColumn = jsonColumn<Partial<Record<Language, string>>>(Type.Record(text, text));
export const idsColumn = jsonColumn<number[]>(Type.Array(whole));
export const areaColumn = jsonColumn<Area>(Type.Object({ type: text, coordinates: Type.Array(Type.Any()) }));
export const permissionsColumn = jsonColumn<Permission[]>(Type.Array(text));
export const rolesColumn = jsonColumn<Role[]>(Type.Array(text));
export const spansColumn = jsonColumn<OpenSpan[]>(Type.Array(Type.Tuple([whole, whole])));

export const questionsColumn = jsonColumn<Question[]>(objects({ id: text, words: text, kind: text }));
export const keptAnswersColumn = jsonColumn<KeptAnswer[]>(objects({ id: text, question: text, words: text }));
export const checklistColumn = jsonColumn<ChecklistItem[]>(
  objects({ id: text, words: text, required: Type.Boolean() }),
);
export const tickedColumn = jsonColumn<TickedItem[]>(
  objects({ id: text, words: text, required: Type.Boolean(), done: Type.Boolean() }),
);
export const repeatsEveryColumn = jsonColumn<RepeatEvery[]>(objects({ every: whole, unit: text }));
/** Terms of a repeat, as they count up to a date. */
export type StoredTerms = Omit<Rows["repeat_terms"], "repeat_id">;
/** A visit of a repeat as it stood before a change: where, for which date of the rule, and with whom. */
export type StoodBefore = Pick<
  Rows["visits"],
  "id" | "repeat_date" | "date" | "window_from" | "window_to" | "meet_at" | "confirmed_at" | "state"
> & { technicianIds: number[] };
/** What a change of a repeat is taken back to. `at`: when it was made; `lastMessage`: the last one written by then. */
export interface BeforeChange {
  at: number;
  lastMessage: number;
  terms: StoredTerms[];
  exceptions: Omit<Rows["repeat_exceptions"], "repeat_id">[];
  visits: StoodBefore[];
  /** Not kept by changes that were made before these could be changed for many. */
  pauses?: Pick<Rows["repeat_pauses"], "first_date" | "last_date">[];
  review?: Pick<Rows["repeats"], "review_date" | "review_bp" | "review_notice_days">;
}
export const beforeChangeColumn = jsonColumn<BeforeChange>(
  Type.Object({
    at: whole,
    lastMessage: whole,
    terms: objects({
      until_date: text,
      start_date: text,
      rule: text,
      from_minute: whole,
      to_minute: whole,
      on_closed: text,
    }),
    exceptions: objects({ date: text }),
    visits: objects({ id: whole, date: text, window_from: whole, window_to: whole, technicianIds: Type.Array(whole) }),
  }),
);
export const skillNeedsColumn = jsonColumn<SkillNeed[]>(objects({ skill: text }));
export const extrasColumn = jsonColumn<Item["extras"]>(objects({ id: whole, quantity: whole }));
export const itemsColumn = jsonColumn<Item[]>(
  objects({ serviceId: whole, quantity: whole, answers: Type.Object({}), extras: Type.Array(Type.Any()) }),
);
export const termsColumn = jsonColumn<Terms>(
  Type.Object({ late: Type.Object({ hours: whole, kind: text, value: whole }), noAccessMinor: whole }),
);
export const linesColumn = jsonColumn<PricedLine[]>(
  objects({
    description: text,
    quantity: Type.Number(),
    unitMinor: Type.Number(),
    amountMinor: whole,
    taxMinor: whole,
  }),
);

export const quoteOptionsColumn = jsonColumn<QuoteOption[]>(
  objects({ name: text, items: Type.Array(Type.Any()), lines: Type.Array(Type.Any()), minutes: whole, crew: whole }),
);
export const daysColumn = jsonColumn<number[]>(Type.Array(whole));

export const wishColumn = jsonColumn<Wish>(Type.Object({ weekdays: whole, from: whole, to: whole }));
export const chosenWindowColumn = jsonColumn<ChosenWindow>(Type.Object({ date: text, from: whole, to: whole }));

export const doorAnswersColumn = jsonColumn<{ question: string; answer: string }[]>(
  objects({ question: text, answer: text }),
);
export const tellsColumn = jsonColumn<{ way: "mail" | "text"; to: string }[]>(objects({ way: text, to: text }));
/** What belonged to somebody before two became one: ids by table. */
export const movedColumn = jsonColumn<Record<string, number[]>>(Type.Record(text, Type.Array(whole)));
/** A saved view. What came to the filter later is as with everybody. */
export const filterColumn = jsonColumn<CustomerFilter>(
  Type.Object({ openMoney: Type.Boolean(), noComing: Type.Boolean(), archived: Type.Boolean() }),
);
export const columnsColumn = jsonColumn<Columns>(
  Type.Object({ names: Type.Array(text), fields: Type.Array(Type.Any()), dates: text }),
);
export const rowProblemsColumn = jsonColumn<RowProblem[]>(objects({ field: text, sentence: text }));
/** What taking a row of an import has made or changed. */
export const doneColumn = jsonColumn<Done>(Type.Object({ id: whole, made: Type.Boolean() }));

/** Enough of what an imported row has made or changed to take it back. */
export interface Done {
  id: number;
  made: boolean;
  /** Ids of rows that were added to somebody known. */
  sites?: number[];
  tags?: number[];
  /** Columns that were changed, as they were before and are since. */
  before?: Record<string, string | number | null>;
  after?: Record<string, string | number | null>;
}

/** What was read in an answer. */
export const meaningsColumn = jsonColumn<Meaning[]>(Type.Array(text));
/** The business as it was told on a paper. */
export type ToldSeller = Record<
  "name" | "address" | "taxNumber" | "registration" | "bankAccount" | "mail" | "phone" | "site",
  string
> & { mark: string | null; pricesIncludeTax: 0 | 1 };
export const toldSellerColumn = jsonColumn<ToldSeller>(
  Type.Object({ name: text, address: text, pricesIncludeTax: whole }),
);
/** Words by which customers say that they are in danger, by language. */
export const dangerWordsColumn = jsonColumn<Record<Language, string[]>>(
  Type.Object(Object.fromEntries(languages.map((language) => [language, Type.Array(text)]))),
);
/** Who else is reached for a customer. */
export const contactsColumn = jsonColumn<ContactPerson[]>(
  objects({ name: text, role: text, mail: text, phone: text, uses: Type.Array(text) }),
);
const balanceOn = Type.Object({ cents: whole, date: text });
/** What a statement opens and closes with. */
export const balancesColumn = jsonColumn<StatementBalances>(
  Type.Object({ account: text, opening: balanceOn, closing: balanceOn }),
);
/** Words with which answers by hand begin. */
export const quickAnswersColumn = jsonColumn<QuickAnswer[]>(objects({ name: text, words: Type.Object({}) }));
/** Channels of an occasion or of a message, in order. */
export const channelsColumn = jsonColumn<Channel[]>(Type.Array(text));
/** What a message's words are made of on the channels that are left, and where it goes there. */
export const fieldsColumn = jsonColumn<{ fields: MergeFields; mail: string; phone: string }>(
  Type.Object({ fields: Type.Object({}), mail: text, phone: text }),
);
/** Whom a campaign writes to. */
export const audienceColumn = jsonColumn<Audience>(
  Type.Object({ services: Type.Array(whole), zones: Type.Array(whole), noComing: Type.Boolean(), restDays: whole }),
);
/** The words of a campaign. */
export const campaignTextsColumn = jsonColumn<CampaignTexts>(Type.Record(text, Type.Record(text, Type.Any())));
/** What the link of a message opens. */
export const openedByColumn = jsonColumn<{ kind: LinkKind; id: number }>(Type.Object({ kind: text, id: whole }));
/** Stops of a day as its technician knows them. */
export const stopsColumn = jsonColumn<{ id: number; window_from: number }[]>(
  objects({ id: whole, window_from: whole }),
);

/** What changed of a customer's terms by a merge, before and after; and what is withheld since. */
export interface MergedTerms {
  columns: Record<string, [before: string | number | null, after: string | number | null]>;
  withheld: Pick<Rows["withheld"], "purpose" | "channel">[];
}
export const mergedTermsColumn = jsonColumn<MergedTerms>(
  Type.Object({ columns: Type.Object({}), withheld: objects({ purpose: text, channel: text }) }),
);

/** So much of which invoice. */
export const paysColumn = jsonColumn<{ invoiceId: number; amountMinor: number }[]>(
  objects({ invoiceId: whole, amountMinor: whole }),
);
