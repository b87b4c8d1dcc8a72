"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { dateWords } from "@/core/time/words";
import { counted } from "@/core/words";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import Skeleton from "@mui/material/Skeleton";
import Typography from "@mui/material/Typography";
import { useRouter } from "next/navigation";
import { CampaignScreen } from "./campaign-screen";
import { campaignAddress } from "./data";

type Row = ViewOutput<"campaigns">["rows"][number];

/** Campaigns with what has come of them; the one that is open takes their place. */
export function Campaigns({ open }: { open: number | "new" | null }) {
  return open === null ? <List /> : <CampaignScreen key={open} id={open === "new" ? null : open} />;
}

function List() {
  const router = useRouter();
  const { data, problem } = useLive("campaigns", {}, 20_000);
  return (
    <Box sx={{ p: 6, overflowY: "auto", display: "grid", gap: 4, alignContent: "start", maxWidth: 980 }}>
      <Box sx={{ display: "flex", gap: 4, alignItems: "center" }}>
        <Box sx={{ flex: 1, color: ink.ash }}>
          Write to customers who have agreed to offers. No more of them are invited than there is room for.
        </Box>
        <Button variant="contained" onClick={() => router.push(campaignAddress("new"))}>
          New campaign
        </Button>
      </Box>
      {problem && <Alert severity="warning">{problem.sentence}</Alert>}
      {!data && !problem && <Skeleton variant="rounded" height={200} />}
      {data?.rows.length === 0 && (
        <Box sx={{ color: ink.ash }}>
          There is none yet. A first one may be: everybody who had their chimney swept ten to fourteen months ago and
          has no coming visit.
        </Box>
      )}
      {data?.rows.map((row) => (
        <CampaignRow
          key={row.id}
          row={row}
          currency={data.currency}
          onOpen={() => router.push(campaignAddress(row.id))}
        />
      ))}
    </Box>
  );
}

const stateWords: Record<Row["state"], string> = {
  draft: "draft",
  running: "running",
  paused: "paused",
  ended: "ended",
};

const CampaignRow = ({ row, currency, onOpen }: { row: Row; currency: string; onOpen: () => void }) => (
  <ButtonBase
    onClick={onOpen}
    sx={{
      display: "block",
      textAlign: "left",
      font: "inherit",
      p: 4,
      bgcolor: ink.plaster,
      border: `1px solid ${ink.line}`,
      borderRadius: "6px",
    }}
  >
    <Box sx={{ display: "flex", gap: 3, alignItems: "baseline", flexWrap: "wrap" }}>
      <Typography variant="h2" component="span">
        {row.name}
      </Typography>
      <Box component="span" sx={{ color: row.state === "running" ? ink.pine : ink.ash, fontWeight: 600 }}>
        {stateWords[row.state]}
      </Box>
    </Box>
    <Box sx={{ color: ink.ash, fontSize: 14.5 }}>
      {row.service}, {dateWords(row.first)} to {dateWords(row.last)}
      {row.endReason && ` · ${row.endReason}`}
    </Box>
    {row.results.invited > 0 && (
      <Box sx={{ mt: 1 }}>
        {counted(row.results.invited, "customer")} invited, {row.results.opened} opened,{" "}
        <b>{row.results.booked} booked</b>
        {!!row.results.bookedMinor && `, ${moneyWords(row.results.bookedMinor, currency)}`}
      </Box>
    )}
  </ButtonBase>
);
