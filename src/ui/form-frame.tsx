"use client";
import type { Problem } from "@/core/problems";
import { WithSections } from "@/ui/form-sections";
import { ink } from "@/ui/palette";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { type ReactNode } from "react";

interface FormFrameProps {
  title: string;
  note?: ReactNode;
  problem: Problem | null;
  busy: boolean;
  save?: string;
  onSave: () => void;
  /** What was typed before a reload is back, and can be dropped. */
  restored?: "as it was" | "changed" | null;
  onDiscard?: () => void;
  /** Beside the button. */
  more?: ReactNode;
  children: ReactNode;
}

/** A form with one button: what cannot be saved says why, beside the field and at the top. */
export function FormFrame({
  title,
  note,
  problem,
  busy,
  save = "Save",
  onSave,
  restored,
  onDiscard,
  more,
  children,
}: FormFrameProps) {
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        onSave();
      }}
      sx={{ display: "grid", gap: 4 }}
    >
      <Box>
        <Typography variant="h2">{title}</Typography>
        {note && <Typography sx={{ color: ink.ash, mt: 1, fontSize: 14 }}>{note}</Typography>}
      </Box>
      {restored && (
        <Alert
          severity="info"
          action={
            <Button color="inherit" onClick={onDiscard}>
              Drop it
            </Button>
          }
        >
          What you typed and had not saved is back.
          {restored === "changed" && " Somebody has saved something else here since: look before you save."}
        </Alert>
      )}
      {problem && (
        <Alert severity="error" role="alert">
          {problem.sentence}
          {problem.fields?.["/"] && ` ${problem.fields["/"]}`}
        </Alert>
      )}
      <WithSections>{children}</WithSections>
      <Box
        sx={{
          display: "flex",
          gap: 3,
          alignItems: "center",
          flexWrap: "wrap",
          position: "sticky",
          bottom: 0,
          bgcolor: ink.paper,
          py: 3,
          borderTop: `1px solid ${ink.line}`,
          zIndex: 2,
        }}
      >
        <Button type="submit" variant="contained" disabled={busy}>
          {busy ? "Saving…" : save}
        </Button>
        {more}
      </Box>
    </Box>
  );
}

export const promisedNote = (n: number): string | undefined =>
  n
    ? `${n} promised ${n === 1 ? "visit keeps" : "visits keep"} what was agreed; changes count for new bookings.`
    : undefined;

/** A draft of something saved: without what the form does not send. */
export const without = <T extends object, K extends keyof T>(row: T, ...keys: K[]): Omit<T, K> =>
  Object.fromEntries(Object.entries(row).filter(([key]) => !keys.includes(key as K))) as Omit<T, K>;
