"use client";
import { durationWords, windowWords } from "@/core/time/words";
import { Code } from "@/ui/arch";
import { hues, ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import css from "./board.module.css";
import { liftWords } from "./carry";
import type { BoardDay } from "./data";

type TrayVisit = BoardDay["tray"][number];

interface TrayProps {
  visits: TrayVisit[];
  place: (visit: TrayVisit, technicianIds: number[]) => void;
  canChange: boolean;
}

/** What nobody has yet, and in one line who can take it and what it costs. */
export function Tray({ visits, place, canChange }: TrayProps) {
  return (
    <aside aria-label="Unplaced" className={css.tray}>
      <Typography variant="h3" component="h2">
        Unplaced · {visits.length}
      </Typography>
      {visits.length === 0 && (
        <Typography sx={{ mt: 3, color: ink.ash }}>
          Every visit of this day has somebody. What loses its technician comes here.
        </Typography>
      )}
      {visits.map((visit) => (
        <TrayCard
          key={visit.id}
          visit={visit}
          place={() => place(visit, visit.best.technicianIds)}
          canChange={canChange}
        />
      ))}
      {visits.length > 0 && canChange && (
        <Typography sx={{ mt: 4, fontSize: 13, color: ink.ash }}>
          Hold a card over the board to see where it fits.
        </Typography>
      )}
    </aside>
  );
}

function TrayCard({ visit, place, canChange }: { visit: TrayVisit; place: () => void; canChange: boolean }) {
  return (
    <Box
      sx={{
        mt: 3,
        p: 3,
        bgcolor: "#fff",
        border: `1px ${visit.state === "forecast" ? "dashed" : "solid"} ${ink.line}`,
        borderRadius: "6px",
      }}
    >
      <div
        data-visit={visit.id}
        data-movable={canChange || undefined}
        role="button"
        tabIndex={0}
        aria-label={`${visit.customer}, ${visit.service}`}
        aria-describedby={canChange ? liftWords : undefined}
      >
        <Box sx={{ fontWeight: 700 }}>
          <Code code={visit.code} colour={hues[visit.hue]!} /> {visit.service}
        </Box>
        <Box sx={{ fontSize: 14, color: ink.ash, mt: 1 }}>
          {visit.customer}, {visit.site}
        </Box>
        <Box sx={{ fontSize: 14, color: ink.ash }}>
          {visit.state === "forecast" ? "forecast" : "promised"} {windowWords(visit.windowFrom, visit.windowTo)},{" "}
          {durationWords(visit.minutes)}
          {visit.crew > 1 ? `, ${visit.crew} people` : ""}
        </Box>
      </div>
      <Box sx={{ mt: 2, fontSize: 14, fontWeight: 650, color: visit.best.fits ? ink.pine : ink.ember }}>
        {visit.best.words}
      </Box>
      {visit.best.fits && canChange && (
        <Button size="small" variant="outlined" onClick={place} sx={{ mt: 2 }}>
          Place
        </Button>
      )}
    </Box>
  );
}
