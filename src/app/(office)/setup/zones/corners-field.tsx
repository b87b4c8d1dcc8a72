"use client";
import type { Area } from "@/core/place/zones";
import { Field } from "@/ui/form-parts";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";

/** The corners of an area as text: what the pen does, by keyboard. */
export function CornersField({ area, onArea }: { area: Area | null; onArea: (area: Area | null) => void }) {
  const [open, setOpen] = useState(false);
  const ring = area?.type === "Polygon" ? (area.coordinates[0] ?? []) : [];
  const [text, setText] = useState("");
  if (area?.type === "MultiPolygon")
    return <Box sx={{ color: ink.ash, fontSize: 14 }}>The area has several parts.</Box>;
  const corners = text
    .split("\n")
    .map((line) =>
      line
        .split(/[\s,;]+/)
        .filter(Boolean)
        .map(Number),
    )
    .filter((pair) => pair.length > 0);
  const odd = corners.some((pair) => pair.length !== 2 || pair.some((n) => !Number.isFinite(n)));
  const apply = () =>
    onArea(
      corners.length < 3 || odd
        ? area
        : { type: "Polygon", coordinates: [[...(corners as [number, number][]), corners[0] as [number, number]]] },
    );
  return (
    <Box>
      <Button
        size="small"
        aria-expanded={open}
        onClick={() => {
          setOpen(!open);
          setText(
            ring
              .slice(0, -1)
              .map((pair) => pair.join(", "))
              .join("\n"),
          );
        }}
      >
        Corners as text
      </Button>
      {open && (
        <Box sx={{ mt: 2, display: "grid", gap: 2 }}>
          <Field
            label="Corners"
            multiline
            minRows={3}
            value={text}
            onChange={(e) => setText(e.target.value)}
            wrong={odd ? "One corner a line: longitude, latitude" : undefined}
            helperText="One corner a line: longitude, latitude"
          />
          <Box>
            <Button size="small" variant="outlined" disabled={odd || corners.length < 3} onClick={apply}>
              Use these corners
            </Button>
          </Box>
        </Box>
      )}
    </Box>
  );
}
