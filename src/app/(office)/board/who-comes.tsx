"use client";
import { VisitState } from "@/ui/arch";
import { ink } from "@/ui/palette";
import { SheetSection } from "@/ui/side-sheet";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import type { VisitDetails } from "./data";

interface WhoComesProps {
  comes: NonNullable<VisitDetails["comes"]>;
  chosen: number;
  onOpen: (visitId: number) => void;
}

/** The list of who comes to a time that customers share; each opens their own booking. */
export function WhoComes({ comes: { seats, who }, chosen, onOpen }: WhoComesProps) {
  const taken = who.filter((one) => one.state !== "cancelled").reduce((sum, one) => sum + one.seats, 0);
  return (
    <SheetSection title={`Who comes: ${taken} of ${seats} seats`}>
      {who.map((one) => (
        <ButtonBase
          key={one.id}
          aria-pressed={one.id === chosen}
          onClick={() => onOpen(one.id)}
          sx={{
            display: "flex",
            width: "100%",
            gap: 2,
            textAlign: "left",
            fontSize: 14.5,
            px: 2,
            py: 1.5,
            borderTop: `1px solid ${ink.line}`,
            bgcolor: one.id === chosen ? ink.plaster : "transparent",
          }}
        >
          <Box sx={{ flex: 1, minWidth: 0 }}>
            <Box sx={{ fontWeight: one.id === chosen ? 700 : 400 }}>{one.customer}</Box>
            {[one.phone, one.note].filter(Boolean).map((words) => (
              <Box key={words} sx={{ color: ink.ash, overflowWrap: "anywhere" }}>
                {words}
              </Box>
            ))}
          </Box>
          <Box sx={{ color: ink.ash, whiteSpace: "nowrap", textAlign: "right" }}>
            {one.seats} {one.seats === 1 ? "seat" : "seats"}
            <Box>
              <VisitState state={one.state} />
            </Box>
          </Box>
        </ButtonBase>
      ))}
    </SheetSection>
  );
}
