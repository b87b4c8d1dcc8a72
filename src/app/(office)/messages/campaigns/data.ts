import type { ViewOutput } from "@/api/client";

export type CampaignView = ViewOutput<"campaign">;
export type SavedCampaign = NonNullable<CampaignView["campaign"]>;
export type CampaignDraft = Omit<SavedCampaign, "id" | "state" | "endReason" | "nextAt">;

/** Where a campaign is shown, or begun; null: all of them. */
export const campaignAddress = (id: number | "new" | null): string =>
  `/messages?list=campaigns${id === null ? "" : `&open=${id}`}`;
