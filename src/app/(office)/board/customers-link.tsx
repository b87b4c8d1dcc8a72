"use client";
import { SheetSection } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import { useCopy } from "@/ui/use-copy";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import { useSnackbar } from "notistack";
import type { VisitDetails } from "./data";

export function LinkSection({ visit, mayChange }: { visit: VisitDetails; mayChange: boolean }) {
  const { enqueueSnackbar } = useSnackbar();
  const { send } = useChange("renew-link", {
    then: () => enqueueSnackbar("The old link is ended; a new one is made"),
  });
  const copy = useCopy();
  return (
    <SheetSection title="Customer’s link">
      <Stack direction="row" spacing={2}>
        <Button size="small" variant="outlined" component="a" href={visit.link ?? "#"} target="_blank">
          Open
        </Button>
        <Button
          size="small"
          variant="outlined"
          onClick={() => copy(new URL(visit.link!, window.location.href).href, "The customer’s link is copied")}
        >
          Copy
        </Button>
        {mayChange && (
          <Button size="small" onClick={() => void send({ jobId: visit.jobId! })}>
            End and renew
          </Button>
        )}
      </Stack>
    </SheetSection>
  );
}
