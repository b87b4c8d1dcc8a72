"use client";
import { channelsOfCampaign } from "@/core/messages/campaign-texts";
import { moneyWords } from "@/core/money/amounts";
import { dateWords } from "@/core/time/words";
import { counted } from "@/core/words";
import { firstPage } from "@/ui/first-page";
import { LinkBox } from "@/ui/link-box";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Skeleton from "@mui/material/Skeleton";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useDeferredValue, useState } from "react";
import type { CampaignDraft } from "./data";

const shownAtOnce = 12;

/** Who would be written to as the form stands, and for how many of them the windows of its days have room. */
export function WhoAndHowMany({
  draft,
  campaignId,
  currency,
}: {
  draft: CampaignDraft;
  campaignId: number | null;
  currency: string;
}) {
  const [search, setSearch] = useState("");
  const [size, setSize] = useState(shownAtOnce);
  const channels = channelsOfCampaign(draft.texts);
  const asked = useDeferredValue(JSON.stringify({ audience: draft.audience, search }));
  const { audience, search: looked } = JSON.parse(asked) as { audience: CampaignDraft["audience"]; search: string };
  const { data, problem } = useLive("campaign-audience", {
    ...firstPage<"campaign-audience">("lastHad"),
    size,
    search: looked,
    audience,
    channels,
    campaignId,
  });
  return (
    <Box
      component="section"
      aria-label="Who and how many"
      sx={{ position: { md: "sticky" }, top: 0, display: "grid", gap: 3 }}
    >
      <Typography variant="h2">Who and how many</Typography>
      {problem && (
        <Alert severity="warning">{problem.fields ? Object.values(problem.fields)[0] : problem.sentence}</Alert>
      )}
      {!data && !problem && <Skeleton variant="rounded" height={240} />}
      {data && (
        <>
          <Box role="status">
            <b>{counted(data.count, "customer")}</b> would be invited
            {data.meant > data.count &&
              `; ${data.meant - data.count} more would fit, but ${data.meant - data.count === 1 ? "has" : "have"} not agreed to offers, or ${data.meant - data.count === 1 ? "is" : "are"} not reached this way`}
            .
          </Box>
          <Room draft={draft} campaignId={campaignId} count={data.count} />
          <TextField size="small" label="Search them" value={search} onChange={(e) => setSearch(e.target.value)} />
          <Box component="ul" sx={{ listStyle: "none", m: 0, p: 0 }}>
            {data.rows.map((row) => (
              <Box component="li" key={row.id} sx={{ borderTop: `1px solid ${ink.line}`, py: 1.5 }}>
                <Box sx={{ display: "flex", gap: 2 }}>
                  <LinkBox href={`/customers/${row.id}`} sx={{ flex: 1 }}>
                    {row.name}
                  </LinkBox>
                  {row.paidMinor !== null && <span>{moneyWords(row.paidMinor, currency)}</span>}
                </Box>
                <Box sx={{ color: ink.ash, fontSize: 13.5 }}>
                  {row.place} · {row.lastHad ? `last on ${dateWords(row.lastHad)}` : "never had it"}
                </Box>
              </Box>
            ))}
          </Box>
          {data.count > data.rows.length && data.rows.length > 0 && size < 200 && (
            <Button size="small" onClick={() => setSize(Math.min(200, size * 4))}>
              Show more
            </Button>
          )}
        </>
      )}
    </Box>
  );
}

/** What the window engine says: asked on a press, since it puts each of them into the days that there are. */
function Room({ draft, campaignId, count }: { draft: CampaignDraft; campaignId: number | null; count: number }) {
  const { audience, texts, serviceId, first, last } = draft;
  const now = JSON.stringify({ audience, serviceId, first, last, campaignId });
  const [asked, setAsked] = useState<string | null>(null);
  const { data, problem } = useLive(
    "campaign-room",
    asked === now ? { audience, texts, serviceId, first, last, campaignId } : null,
  );
  if (count === 0) return null;
  if (asked !== now)
    return (
      <Button variant="outlined" size="small" onClick={() => setAsked(now)} sx={{ justifySelf: "start" }}>
        How many is there room for?
      </Button>
    );
  if (problem) return <Alert severity="warning">{Object.values(problem.fields ?? {})[0] ?? problem.sentence}</Alert>;
  if (!data) return <Box sx={{ color: ink.ash }}>Putting them into the days…</Box>;
  return (
    <Box
      role="status"
      aria-label="Room"
      sx={{ p: 3, bgcolor: ink.plaster, border: `1px solid ${ink.line}`, borderRadius: "6px" }}
    >
      {data.fit === data.looked
        ? data.looked === count
          ? `There is room for all ${count}.`
          : `There is room for the first ${data.looked}, and perhaps for more.`
        : `There is room for ${data.fit} of the first ${data.looked}.`}{" "}
      No more are invited than that at a time.
    </Box>
  );
}
