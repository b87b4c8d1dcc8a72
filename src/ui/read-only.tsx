import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import type { ReactNode } from "react";

/** A customer's page for somebody else: all of it can be read, nothing can be pressed. */
export function ReadOnly({ words, children }: { words: string; children: ReactNode }) {
  return (
    <>
      <Box
        role="note"
        sx={{ bgcolor: ink.plaster, borderBottom: `1px solid ${ink.line}`, px: 4, py: 2, textAlign: "center" }}
      >
        {words}
      </Box>
      <Box inert>{children}</Box>
    </>
  );
}
