import { defineModule } from "@/kernel/module";
import { campaignJobs } from "./jobs";
import { openOffer, takeOffer } from "./operations/by-link";
import { endCampaign, pauseCampaign, removeCampaign, runCampaign, saveCampaign } from "./operations/campaigns";
import { campaign, campaignAudience, campaignRoom, campaigns } from "./views/campaigns";
import { offer, offerWindows } from "./views/offer";

export const campaignsModule = defineModule({
  name: "campaigns",
  owns: ["campaigns", "campaign_invites"],
  operations: {
    "end-campaign": endCampaign,
    "open-offer": openOffer,
    "pause-campaign": pauseCampaign,
    "remove-campaign": removeCampaign,
    "run-campaign": runCampaign,
    "save-campaign": saveCampaign,
    "take-offer": takeOffer,
  },
  views: {
    campaign,
    "campaign-audience": campaignAudience,
    "campaign-room": campaignRoom,
    campaigns,
    offer,
    "offer-windows": offerWindows,
  },
  jobs: campaignJobs,
});
