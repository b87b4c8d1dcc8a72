import type { Language } from "./languages";
import type { Template } from "./templates";

/** Channels by which a campaign may write: nobody is called about an offer. */
export const campaignChannels = ["mail", "text"] as const;
export type CampaignChannel = (typeof campaignChannels)[number];

/** The words of a campaign by language and channel. */
export type CampaignTexts = Partial<Record<Language, Partial<Record<CampaignChannel, Template>>>>;

/** The channels for which a campaign has words. */
export const channelsOfCampaign = (texts: CampaignTexts): CampaignChannel[] =>
  campaignChannels.filter((channel) => Object.values(texts).some((words) => words[channel]));

/**
 * Its words for somebody: null where nothing is said that way, undefined where those of the occasion count. In a language that
 * a campaign does not have, these do, on the channels that it uses.
 */
export function wordsOfCampaign(
  texts: CampaignTexts,
  channel: string,
  language: Language,
): Template | null | undefined {
  const way = campaignChannels.find((one) => one === channel);
  if (!way) return null;
  const own = texts[language];
  if (own) return own[way] ?? null;
  return channelsOfCampaign(texts).includes(way) ? undefined : null;
}
