"use client";
import { type Condition, type Question } from "@/core/catalogue/questions";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";

/** "Only if … is …", chosen from the answers that earlier questions have. */
export function ShownIf({
  question,
  earlier,
  onCondition,
  wrong,
}: {
  question: Question;
  earlier: Question[];
  onCondition: (condition: Condition | null) => void;
  wrong?: string;
}) {
  const conditions = earlier.flatMap((q): { key: string; words: string; condition: Condition }[] => {
    if (q.kind === "yes-no")
      return [true, false].map((is) => ({
        key: `${q.id} ${is}`,
        words: `“${q.words}” is ${is ? "yes" : "no"}`,
        condition: { question: q.id, is },
      }));
    if (q.kind === "one" || q.kind === "several")
      return q.choices.map((c) => ({
        key: `${q.id} ${c.id}`,
        words: `“${q.words}” is ${c.words}`,
        condition: { question: q.id, is: c.id },
      }));
    if (q.kind === "count")
      return [{ key: `${q.id} more`, words: `“${q.words}” is 2 or more`, condition: { question: q.id, atLeast: 2 } }];
    return [];
  });
  if (conditions.length === 0 && !question.shownIf) return null;
  const now = question.shownIf
    ? conditions.find((c) => JSON.stringify(c.condition) === JSON.stringify(question.shownIf))
    : undefined;
  return (
    <TextField
      select
      label="Asked"
      value={question.shownIf ? (now?.key ?? "other") : "always"}
      onChange={(e) => onCondition(conditions.find((c) => c.key === e.target.value)?.condition ?? null)}
      error={!!wrong}
      helperText={wrong}
      sx={{ mt: 2, minWidth: 260 }}
    >
      <MenuItem value="always">always</MenuItem>
      {conditions.map(({ key, words }) => (
        <MenuItem key={key} value={key}>
          only if {words}
        </MenuItem>
      ))}
      {question.shownIf && !now && <MenuItem value="other">only after another answer</MenuItem>}
    </TextField>
  );
}
