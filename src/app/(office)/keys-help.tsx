"use client";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Dialog from "@mui/material/Dialog";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { usePathname } from "next/navigation";

const everywhere: [string, string][] = [
  ["Ctrl or Cmd + K", "Find a customer, a visit or a screen"],
  ["N", "New customer"],
  ["?", "These keys"],
  ["Esc", "Close what is open"],
];
const onBoard: [string, string][] = [
  ["← →", "The day before, the day after"],
  ["T", "Today"],
  ["Tab, then Enter", "Open a visit"],
  ["Space, arrows, Space", "Lift a visit, carry it, put it down"],
];

const inMessages: [string, string][] = [
  ["J K", "The next conversation, the one before"],
  ["R", "Write an answer"],
  ["Ctrl or Cmd + Enter", "Send it"],
  ["E", "Done, or waits again"],
  ["A", "I answer it"],
  ["C", "Call them"],
  ["B", "Book a visit for them"],
];

export function KeysHelp({ open, onClose }: { open: boolean; onClose: () => void }) {
  const path = usePathname();
  const here = path.startsWith("/board") ? onBoard : path.startsWith("/messages") ? inMessages : [];
  const keys = [...here, ...everywhere];
  return (
    <Dialog open={open} onClose={onClose} maxWidth="xs" fullWidth>
      <DialogTitle>Keys of this screen</DialogTitle>
      <DialogContent>
        {keys.map(([key, does]) => (
          <Box
            key={key}
            sx={{ display: "flex", justifyContent: "space-between", gap: 4, py: 2, borderTop: `1px solid ${ink.line}` }}
          >
            <span>{does}</span>
            <Box component="kbd" sx={{ fontFamily: "inherit", color: ink.ash, whiteSpace: "nowrap" }}>
              {key}
            </Box>
          </Box>
        ))}
      </DialogContent>
    </Dialog>
  );
}
