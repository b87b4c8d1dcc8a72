"use client";
import { groupBy } from "@/core/group";
import { dayShort, dayWords } from "@/core/time/words";
import ChevronLeft from "@mui/icons-material/ChevronLeft";
import ChevronRight from "@mui/icons-material/ChevronRight";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import IconButton from "@mui/material/IconButton";
import Skeleton from "@mui/material/Skeleton";
import { useState } from "react";
import { arch, ink } from "./palette";

/** A window as customers choose it: epoch minutes. */
export interface PickedWindow {
  date: string;
  from: number;
  to: number;
  /** The window as it is read. */
  words: string;
  followingDays: string[];
  onOurWay: boolean;
  /** Where several customers share a time. */
  seatsLeft: number | null;
}

const daysShown = 3;
/** Three days beside each other, one under the other where a screen is magnified until three have no room. */
const columns = "repeat(auto-fill, minmax(max(86px, calc((100% - 17px) / 3)), 1fr))";

interface WindowPickerProps {
  /** Soonest first; there must be at least one. */
  offers: readonly PickedWindow[];
  /** Brings the days that follow those, where there are any. */
  later?: (() => Promise<void>) | null;
  chosen: PickedWindow | null;
  onOurWayBp?: number;
  onChoose: (window: PickedWindow) => void;
}

const seatsWords = ({ seatsLeft }: PickedWindow, before = ""): string =>
  seatsLeft === null ? "" : `${before}${seatsLeft} ${seatsLeft === 1 ? "seat" : "seats"} left`;

/** Days side by side with their arches. */
export function WindowPicker({ offers, later = null, chosen, onOurWayBp = 0, onChoose }: WindowPickerProps) {
  const days = [...groupBy(offers, (o) => o.date)];
  const pages = Math.ceil(days.length / daysShown);
  const [turned, setTurned] = useState(0);
  const [busy, setBusy] = useState(false);
  // Where nothing came of the days that were asked for, the last ones stay.
  const page = Math.min(turned, pages - 1);
  const turnOn = async () => {
    if (page === pages - 1 && later) {
      setBusy(true);
      await later();
      setBusy(false);
    }
    setTurned(page + 1);
  };
  return (
    <>
      <Box sx={{ display: "flex", alignItems: "center", justifyContent: "space-between", mt: 2 }}>
        <IconButton aria-label="Earlier days" disabled={page === 0} onClick={() => setTurned(page - 1)}>
          <ChevronLeft />
        </IconButton>
        <Box sx={{ color: ink.ash, fontSize: 15 }}>
          {dayShort(days[page * daysShown]![0])} to{" "}
          {dayShort(days[Math.min(days.length, (page + 1) * daysShown) - 1]![0])}
        </Box>
        <IconButton
          aria-label="Later days"
          loading={busy}
          disabled={page === pages - 1 && !later}
          onClick={() => void turnOn()}
        >
          <ChevronRight />
        </IconButton>
      </Box>
      <Box sx={{ display: "grid", gridTemplateColumns: columns, gap: 2, mt: 1 }}>
        {days.slice(page * daysShown, (page + 1) * daysShown).map(([date, windows]) => (
          <Box key={date} role="group" aria-label={dayWords(date)}>
            <Box className="titles" sx={{ fontWeight: 650, fontSize: { xs: 15, sm: 16 } }}>
              {dayWords(date).split(" ")[0]}
            </Box>
            <Box sx={{ color: ink.ash, fontSize: 14, mb: 2 }}>{dayWords(date).split(" ").slice(1).join(" ")}</Box>
            {windows.map((offer) => {
              const on = chosen?.from === offer.from && chosen.to === offer.to;
              return (
                <ButtonBase
                  key={offer.from}
                  aria-pressed={on}
                  aria-label={`${dayWords(date)}, ${offer.words}${offer.onOurWay ? `, on our way${onOurWayBp > 0 ? `, ${onOurWayBp / 100}% off` : ""}` : ""}${seatsWords(offer, ", ")}`}
                  onClick={() => onChoose(offer)}
                  sx={{
                    display: "flex",
                    flexDirection: "column",
                    width: "100%",
                    height: 78,
                    mb: 2,
                    pt: 2,
                    borderRadius: arch,
                    border: `1px solid ${on ? ink.accent : offer.onOurWay ? ink.moss : ink.line}`,
                    bgcolor: on ? ink.accent : offer.onOurWay ? "#EEF1E6" : "#fff",
                    color: on ? ink.paper : ink.ink,
                    fontWeight: 700,
                    fontSize: 17,
                  }}
                >
                  {offer.words}
                  {offer.seatsLeft !== null && (
                    <Box sx={{ fontSize: 13, fontWeight: 400, color: on ? ink.paper : ink.ash }}>
                      {seatsWords(offer)}
                    </Box>
                  )}
                  {offer.onOurWay && (
                    <Box
                      sx={{
                        fontSize: 12.5,
                        lineHeight: 1.25,
                        fontWeight: 400,
                        textAlign: "center",
                        color: on ? ink.paper : "#456331",
                      }}
                    >
                      on our way
                      {onOurWayBp > 0 && (
                        <>
                          <br />
                          {onOurWayBp / 100}% off
                        </>
                      )}
                    </Box>
                  )}
                </ButtonBase>
              );
            })}
          </Box>
        ))}
      </Box>
    </>
  );
}

export const PickerSkeleton = () => (
  <Box
    aria-busy="true"
    aria-label="Looking for windows"
    sx={{ display: "grid", gridTemplateColumns: columns, gap: 2, mt: 4 }}
  >
    {Array.from({ length: 6 }, (_, i) => (
      <Skeleton key={i} variant="rounded" height={84} sx={{ borderRadius: arch }} />
    ))}
  </Box>
);
