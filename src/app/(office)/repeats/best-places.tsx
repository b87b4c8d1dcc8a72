"use client";
import type { ViewInput, ViewOutput } from "@/api/client";
import { dayShort, windowWords } from "@/core/time/words";
import { ink } from "@/ui/palette";
import { upper } from "@/core/words";
import { useView } from "@/ui/use-view";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Skeleton from "@mui/material/Skeleton";

export type Place = ViewOutput<"repeat-places">[number];

/** The best day, window and technician over the next ten dates, with the second and third best: what each costs, and who else is near. */
export function BestPlaces({
  about,
  onChoose,
}: {
  about: ViewInput<"repeat-places">;
  onChoose: (place: Place) => void;
}) {
  const { data: places, problem } = useView("repeat-places", about);
  if (problem) return <Alert severity="warning">{problem.sentence}</Alert>;
  if (!places) return <Skeleton variant="rounded" height={150} />;
  if (places.length === 0) return <Box sx={{ color: ink.ash }}>Nobody has room on any day by this rule.</Box>;
  return (
    <Box role="group" aria-label="Where it fits best">
      {places.map((place, i) => (
        <ButtonBase
          key={`${place.rule} ${place.fromMinute}`}
          onClick={() => onChoose(place)}
          sx={{
            display: "block",
            width: "100%",
            textAlign: "left",
            px: 3,
            py: 1.5,
            mb: 1,
            borderRadius: "16px 16px 6px 6px",
            border: `1px solid ${ink.line}`,
            bgcolor: "#fff",
            fontSize: 14.5,
          }}
        >
          <b>
            {upper(place.words)}, {windowWords(place.fromMinute, place.toMinute)}, {place.technician}
          </b>
          <Box sx={{ color: ink.ash }}>
            {i === 0
              ? ""
              : `${place.driving - places[0]!.driving >= 0 ? "+" : "−"}${Math.abs(place.driving - places[0]!.driving)} min; `}
            {place.driving} min driving a visit, room on {place.kept} of {place.of} dates
            {place.near.length > 0 &&
              `; near on ${dayShort(place.start)}: ${place.near
                .slice(0, 3)
                .map(({ name, km }) => `${name} (${km} km)`)
                .join(", ")}`}
          </Box>
        </ButtonBase>
      ))}
    </Box>
  );
}
