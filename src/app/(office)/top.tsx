"use client";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import { DemoClock } from "./demo-clock";
import { useOffice } from "./office-context";

/** The top of a screen: one title, what it comes to, the finder, at most one primary action. */
export function Top({ title, sum, action }: { title: string; sum?: ReactNode; action?: ReactNode }) {
  const { openFind, demo } = useOffice();
  return (
    <Box component="header" sx={{ display: "flex", alignItems: "center", gap: 4, px: 6, pt: 4, pb: 3, minHeight: 68 }}>
      <Typography variant="h1" sx={{ whiteSpace: "nowrap" }}>
        {title}
      </Typography>
      <Typography
        sx={{
          color: ink.ash,
          flex: 1,
          minWidth: 0,
          overflow: "hidden",
          textOverflow: "ellipsis",
          whiteSpace: "nowrap",
        }}
      >
        {sum}
      </Typography>
      <ButtonBase
        onClick={openFind}
        sx={{
          width: 210,
          height: 38,
          px: 3,
          justifyContent: "space-between",
          border: `1px solid ${ink.line}`,
          borderRadius: "6px",
          bgcolor: "#fff",
          color: ink.ash,
          fontSize: 15,
          flex: "none",
        }}
      >
        <span>Find anything</span>
        <span>Ctrl K</span>
      </ButtonBase>
      {demo && <DemoClock now={demo.now} timeZone={demo.timeZone} />}
      {action}
    </Box>
  );
}
