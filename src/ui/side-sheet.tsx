"use client";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import IconButton from "@mui/material/IconButton";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import { ink } from "./palette";

/** Details beside the screen, which stays usable: as tall as what the top of a screen leaves. */
export function SideSheet({
  title,
  onClose,
  children,
  width = 400,
}: {
  title: ReactNode;
  onClose: () => void;
  children: ReactNode;
  width?: number;
}) {
  return (
    <Box
      component="aside"
      aria-label="Details"
      onKeyDown={(e) => e.key === "Escape" && onClose()}
      sx={{
        width,
        flex: "none",
        bgcolor: "#fff",
        borderLeft: `1px solid ${ink.line}`,
        p: 5,
        overflowY: "auto",
        maxHeight: "calc(100dvh - 68px)",
        position: "sticky",
        top: 0,
        alignSelf: "flex-start",
        minHeight: "100%",
      }}
    >
      <Box sx={{ display: "flex", alignItems: "flex-start", gap: 2, mb: 3 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          {title}
        </Typography>
        <IconButton onClick={onClose} aria-label="Close" size="small">
          <Close fontSize="small" />
        </IconButton>
      </Box>
      {children}
    </Box>
  );
}

export function Fact({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Box sx={{ display: "flex", gap: 3, py: 1.25, borderTop: `1px solid ${ink.line}`, fontSize: 14.5 }}>
      <Box sx={{ width: 96, flex: "none", color: ink.ash }}>{name}</Box>
      <Box sx={{ flex: 1, minWidth: 0, overflowWrap: "anywhere" }}>{children}</Box>
    </Box>
  );
}

export function SheetSection({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box component="section" sx={{ mt: 5 }}>
      <Typography variant="h3" sx={{ mb: 1.5 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}
