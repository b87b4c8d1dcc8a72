"use client";
import type { ViewOutput } from "@/api/client";
import { daysBetween } from "@/core/time/dates";
import { dayShort } from "@/core/time/words";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Stack from "@mui/material/Stack";

type ChangeAhead = ViewOutput<"repeat-change-ahead">;

/** What a change of a repeat would do, said before it is done: what stands against it, whom it moves, and turns with two visits or none. */
export function Ahead({ ahead }: { ahead: ChangeAhead | null }) {
  if (!ahead) return <Box sx={{ mt: 2, minHeight: 24 }} role="status" aria-label="Looking ahead" />;
  const { problem, moved, odd } = ahead;
  return (
    <Stack spacing={2} sx={{ mt: 2 }} role="status">
      {problem && <Alert severity="warning">{problem}</Alert>}
      {moved.length > 1 && (
        <Box>
          {moved.length} promised visits move, and each is told:{" "}
          {moved.map(({ from, to }) => `${dayShort(from)} to ${dayShort(to)}`).join("; ")}.
        </Box>
      )}
      {odd.map(({ kind, from, to }) => (
        <Alert key={`${from} ${to}`} severity="warning">
          {kind === "twice"
            ? `Two visits close together: ${dayShort(from)} and ${dayShort(to)}.`
            : `No visit for ${daysBetween(from, to)} days: from ${dayShort(from)} to ${dayShort(to)}.`}
        </Alert>
      ))}
    </Stack>
  );
}
