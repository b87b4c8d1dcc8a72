"use client";
import { imageAddress } from "@/ui/images";
import { arch, ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import type { BookableService } from "./draft";

interface WishProps {
  technicians: BookableService["technicians"];
  /** Nobody else comes. */
  only: boolean;
  chosen: number | null;
  onChoose: (technicianId: number | null) => void;
}

/** Somebody one would like to come: with the others where it can be, or nobody else. */
export function Wish({ technicians, only, chosen, onChoose }: WishProps) {
  const pick = (id: number | null, name: string, photo: string | null) => {
    const on = chosen === id;
    return (
      <ButtonBase
        key={name}
        aria-pressed={on}
        onClick={() => onChoose(id)}
        sx={{
          gap: 2,
          minHeight: 48,
          px: 4,
          py: 1,
          borderRadius: "24px 24px 6px 6px",
          border: `1px solid ${on ? ink.accent : ink.line}`,
          bgcolor: on ? ink.accent : "#fff",
          color: on ? ink.paper : ink.ink,
          fontSize: "inherit",
        }}
      >
        {photo && (
          <Box
            component="img"
            src={imageAddress(photo)}
            alt=""
            sx={{ width: 34, height: 36, objectFit: "cover", borderRadius: arch }}
          />
        )}
        {name}
      </ButtonBase>
    );
  };
  return (
    <Box
      role="group"
      aria-label="Who should come?"
      sx={{ px: 3, py: 4, mt: 3, bgcolor: "#fff", border: `1px solid ${ink.line}`, borderRadius: "6px" }}
    >
      <Box sx={{ fontWeight: 650, mb: 2 }}>Who should come?</Box>
      <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap" }}>
        {pick(null, "Anybody", null)}
        {technicians.map((t) => pick(t.id, t.name, t.photo))}
      </Box>
      {chosen !== null && (
        <Box sx={{ color: ink.ash, mt: 2, fontSize: 15 }}>
          {only
            ? "You see only the times when this person can come."
            : "If it can be; otherwise somebody else of us comes."}
        </Box>
      )}
    </Box>
  );
}
