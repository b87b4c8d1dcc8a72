"use client";
import { fieldWords, valueWords } from "@/core/merging";
import type { Problem } from "@/core/problems";
import { WithSections } from "@/ui/form-sections";
import { useHabits } from "@/ui/habits";
import { ink } from "@/ui/palette";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Radio from "@mui/material/Radio";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
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
  /** What somebody else has saved since, and was changed here too: which of the two is taken. */
  both?: readonly { field: string; mine: unknown; theirs: unknown; taken: "mine" | "theirs" }[];
  onChoose?: (field: string, taken: "mine" | "theirs") => void;
  /** What the change would make of promises, asked before it is made. */
  asks?: ReactNode;
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
  both = [],
  onChoose,
  asks,
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
          {restored === "changed" && " Somebody has saved here since: what only they changed is taken over."}
        </Alert>
      )}
      {problem && (
        <Alert severity="error" role="alert">
          {problem.sentence}
          {problem.fields?.["/"] && ` ${problem.fields["/"]}`}
        </Alert>
      )}
      {asks}
      {both.length > 0 && <SideBySide both={both} onChoose={onChoose} />}
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

/** What two people have typed into the same entries, to be chosen from. */
function SideBySide({ both, onChoose }: Required<Pick<FormFrameProps, "both">> & Pick<FormFrameProps, "onChoose">) {
  const { currency } = useHabits();
  return (
    <Table size="small" aria-label="Changed by both of you">
      <TableHead>
        <TableRow>
          <TableCell>Changed by both of you</TableCell>
          <TableCell>You typed</TableCell>
          <TableCell>They saved</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {both.map(({ field, taken, ...values }) => (
          <TableRow key={field}>
            <TableCell component="th" scope="row">
              {fieldWords(field)}
            </TableCell>
            {(["mine", "theirs"] as const).map((whose) => (
              <TableCell key={whose}>
                <FormControlLabel
                  control={
                    <Radio
                      size="small"
                      checked={taken === whose}
                      onChange={() => onChoose?.(field, whose)}
                      slotProps={{
                        input: { "aria-label": `${fieldWords(field)}: ${whose === "mine" ? "mine" : "theirs"}` },
                      }}
                    />
                  }
                  label={valueWords(field, values[whose], currency)}
                />
              </TableCell>
            ))}
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}

export const promisedNote = (n: number): string | undefined =>
  n
    ? `${n} promised ${n === 1 ? "visit keeps" : "visits keep"} what was agreed; a change that stands against one says so before it is saved.`
    : undefined;

/** A draft of something saved: without what the form does not send. */
export const without = <T extends object, K extends keyof T>(row: T, ...keys: K[]): Omit<T, K> =>
  Object.fromEntries(Object.entries(row).filter(([key]) => !keys.includes(key as K))) as Omit<T, K>;
