"use client";
import { epochMinute, localOf } from "@/core/time/local";
import { clock, dayShort } from "@/core/time/words";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import dayjs, { type Dayjs } from "dayjs";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useState } from "react";

const MomentField = dynamic(() => import("./moment-field").then((m) => m.MomentField));

/** The demo's clock: forward by an hour, to tomorrow morning, or to any moment, so that what falls due can be watched. */
export function DemoClock({ now, timeZone }: { now: number; timeZone: string }) {
  const router = useRouter();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [wished, setWished] = useState<Dayjs | null>(null);
  const { send, busy } = useChange("move-clock", { then: () => router.refresh() });
  const minute = Math.floor(now / 60_000);
  const { date, minute: ofDay } = localOf(minute, timeZone);

  const move = async (minutes: number) => {
    setAnchor(null);
    if (minutes > 0) await send({ minutes });
  };
  const nextDay = () => epochMinute(dayjs(date).add(1, "day").format("YYYY-MM-DD"), 8 * 60, timeZone) - minute;
  const toWished = () =>
    wished && move(epochMinute(wished.format("YYYY-MM-DD"), wished.hour() * 60 + wished.minute(), timeZone) - minute);

  return (
    <>
      <Button
        onClick={(e) => setAnchor(e.currentTarget)}
        disabled={busy}
        aria-label="Demo clock"
        sx={{
          border: `1px dashed ${ink.honey}`,
          color: ink.ink,
          fontWeight: 400,
          fontSize: 14,
          whiteSpace: "nowrap",
          flex: "none",
          height: 38,
        }}
      >
        {dayShort(date)}, {clock(ofDay)} ▸
      </Button>
      <Menu anchorEl={anchor} open={!!anchor} onClose={() => setAnchor(null)}>
        <MenuItem onClick={() => void move(60)}>One hour on</MenuItem>
        <MenuItem onClick={() => void move(nextDay())}>To the next morning, 8:00</MenuItem>
        <MenuItem onClick={() => void move(7 * 1440)}>One week on</MenuItem>
        <Box
          sx={{ px: 4, py: 2, display: "flex", gap: 2, alignItems: "center" }}
          onKeyDown={(e) => e.stopPropagation()}
        >
          <MomentField from={`${date}T${clock(ofDay)}`} value={wished} onValue={setWished} />
          <Button variant="contained" onClick={() => void toWished()} disabled={!wished?.isValid()}>
            Go
          </Button>
        </Box>
        <MenuItem component="a" href="/standins/mail" target="_blank">
          Email that was sent ↗
        </MenuItem>
        <MenuItem component="a" href="/standins/text" target="_blank">
          Texts sent to the test phone ↗
        </MenuItem>
      </Menu>
    </>
  );
}
