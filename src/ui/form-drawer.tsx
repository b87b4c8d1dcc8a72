"use client";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import Drawer from "@mui/material/Drawer";
import IconButton from "@mui/material/IconButton";
import type { ReactNode } from "react";

/** A form over the screen, which stays where it is; what was typed is kept by the form when it is closed. */
export function FormDrawer({
  open,
  label,
  onClose,
  children,
}: {
  open: boolean;
  label: string;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Drawer
      anchor="right"
      open={open}
      onClose={onClose}
      slotProps={{
        paper: { role: "dialog", "aria-label": label, sx: { width: 600, maxWidth: "100vw", px: 5, pt: 4 } },
      }}
    >
      <Box sx={{ position: "absolute", top: 12, right: 12, zIndex: 4 }}>
        <IconButton onClick={onClose} aria-label="Close" size="small">
          <Close fontSize="small" />
        </IconButton>
      </Box>
      {children}
    </Drawer>
  );
}
