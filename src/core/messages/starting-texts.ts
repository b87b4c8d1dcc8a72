import type { Language } from "./languages";
import type { Occasion } from "./occasions";
import type { Channel } from "./purposes";
import type { StartingText } from "./starting-text";
import type { Template } from "./templates";
import { englishTexts } from "./texts-en";
import { spanishTexts } from "./texts-es";

const startingTexts: Record<Language, Record<Occasion, StartingText>> = { en: englishTexts, es: spanishTexts };

/** What a business starts with for an occasion and a channel; null where there is nothing to be said that way. */
export function startingText(occasion: Occasion, channel: Channel, language: Language): Template | null {
  const texts = startingTexts[language][occasion];
  if (channel === "mail") return texts.mail ?? null;
  const body = texts[channel];
  return body === undefined ? null : { subject: "", body };
}
