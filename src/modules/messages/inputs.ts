import { languages } from "@/core/messages/languages";
import { allOccasions } from "@/core/messages/occasions";
import { channels } from "@/core/messages/purposes";
import { OneOf } from "@/kernel/inputs";

export const OccasionName = OneOf(allOccasions);
export const ChannelName = OneOf(channels);
export const LanguageName = OneOf(languages);
