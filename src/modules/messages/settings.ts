import type { Language } from "@/core/messages/languages";
import { kindOf, type Occasion, type OutsideHours } from "@/core/messages/occasions";
import type { Channel } from "@/core/messages/purposes";
import { startingText } from "@/core/messages/starting-texts";
import type { Template } from "@/core/messages/templates";
import type { ViewContext } from "@/kernel/operation";
import { type QuickAnswer, startingAnswers } from "@/core/messages/quick-answers";
import { channelsColumn, quickAnswersColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";

/** An occasion as the owner has it. */
export interface OccasionSettings {
  on: boolean;
  channels: Channel[];
  /** On each of them, or by the first that works. */
  each: boolean;
  outside: OutsideHours;
}

export function settingsOf({ sql }: Pick<ViewContext, "sql">, occasion: Occasion): OccasionSettings {
  const row = sql<Rows["occasions"]>("SELECT * FROM occasions WHERE occasion = ?").get(occasion);
  if (row)
    return {
      on: row.is_on === 1,
      channels: channelsColumn.read(row.channels),
      each: row.each === 1,
      outside: row.outside,
    };
  const { off, channels, each, outside } = kindOf(occasion);
  return { on: !off, channels: [...channels], each: each ?? false, outside: outside ?? "later" };
}

/** The words of an occasion on a channel: the owner's own, or those a business starts with; null where nothing is said that way. */
export function templateOf(
  { sql }: Pick<ViewContext, "sql">,
  occasion: Occasion,
  channel: Channel,
  language: Language,
): Template | null {
  const own = sql<Template>(
    "SELECT subject, body FROM templates WHERE occasion = ? AND channel = ? AND language = ?",
  ).get(occasion, channel, language);
  return own ?? startingText(occasion, channel, language);
}

/** Words with which answers by hand begin: the owner's, or those a business starts with. */
export const quickAnswers = ({ business }: ViewContext): readonly QuickAnswer[] =>
  business.quick_answers === null ? startingAnswers : quickAnswersColumn.read(business.quick_answers);
