"use client";
import { SheetSection } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import { useCopy } from "@/ui/use-copy";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import { useSnackbar } from "notistack";
import type { VisitDetails } from "./data";

/** What the customer sees, and their link: it is handed out by an operation of its own, which is taken down. */
export function LinkSection({ visit, mayChange }: { visit: VisitDetails; mayChange: boolean }) {
  const { enqueueSnackbar } = useSnackbar();
  const renew = useChange("renew-link", {
    then: () => enqueueSnackbar("The old link is ended; a new one is made"),
  });
  const copy = useCopy();
  const take = useChange("copy-link", { then: ({ address }) => copy(address, "The customer’s link is copied") });
  const jobId = visit.jobId!;
  return (
    <SheetSection title="Customer’s page">
      <Stack direction="row" spacing={2}>
        <Button size="small" variant="outlined" component="a" href={`/preview/${jobId}`} target="_blank">
          See it
        </Button>
        {mayChange && (
          <>
            <Button size="small" variant="outlined" disabled={take.busy} onClick={() => void take.send({ jobId })}>
              Copy the link
            </Button>
            <Button size="small" disabled={renew.busy} onClick={() => void renew.send({ jobId })}>
              End and renew
            </Button>
          </>
        )}
      </Stack>
    </SheetSection>
  );
}
