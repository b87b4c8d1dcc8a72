import { perform } from "@/kernel/operation";
import { type PieceByPiece, workThrough } from "@/kernel/piece-by-piece";
import { rowsAbout, type ScheduledJob, seenByWorker, wordsAbout, worker } from "@/kernel/scheduled";
import { dueCampaigns, todaysTurn } from "./inviting";
import { closeTurn, inviteCustomer } from "./operations/invite";

/** Invitations of one campaign at one turn. */
const invitedAtOnce = 25;
const campaignTurn: PieceByPiece = {
  job: "campaign",
  stateOf: rowsAbout("SELECT * FROM campaigns WHERE id = @id"),
  wordsOf: wordsAbout("SELECT 'The campaign ' || name AS words FROM campaigns WHERE id = @id"),
  // Who is invited is worked out outside of any transaction; each invitation is one, and is looked at anew in it.
  work(hogar, campaignId) {
    const turn = todaysTurn(seenByWorker(hogar), campaignId);
    const invite = "invite" in turn ? turn.invite : [];
    for (const { customer_id: customerId, site_id: siteId } of invite.slice(0, invitedAtOnce)) {
      const invited = perform(hogar, inviteCustomer, { campaignId, customerId, siteId }, worker);
      if (!invited.ok) return invited;
    }
    // The others come at the next turn, after whatever waits in the outbox.
    if (invite.length > invitedAtOnce) return { ok: true, value: null };
    return perform(hogar, closeTurn, { campaignId, end: "end" in turn ? turn.end : null }, worker);
  },
};

export const campaignJobs: readonly ScheduledJob[] = [
  {
    name: "campaigns",
    order: 150,
    everyMs: 0,
    run: (hogar, until) => workThrough(hogar, campaignTurn, dueCampaigns(seenByWorker(hogar)), until),
  },
];
