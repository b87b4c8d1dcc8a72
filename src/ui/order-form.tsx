"use client";
import type { Extra } from "@/core/catalogue/order";
import { type Answer, type Answers, type Question, shownQuestions } from "@/core/catalogue/questions";
import { moneyWords } from "@/core/money/amounts";
import Add from "@mui/icons-material/Add";
import Remove from "@mui/icons-material/Remove";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import FormHelperText from "@mui/material/FormHelperText";
import IconButton from "@mui/material/IconButton";
import TextField from "@mui/material/TextField";
import type { ReactNode } from "react";
import { ink } from "./palette";
import { PhotoField } from "./photo-field";

export type ChosenExtras = { id: number; quantity: number }[];

interface OrderFormProps {
  questions: readonly Question[];
  extras: readonly Extra[];
  answers: Answers;
  chosen: ChosenExtras;
  currency: string;
  /** Sentences by question, where they are to be shown. */
  problems: Record<string, string>;
  /** Where photos that answer a question are put by whoever holds the uploads of the page. */
  photoPlace?: (questionId: string) => string;
  onAnswers: (answers: Answers) => void;
  onChosen: (chosen: ChosenExtras) => void;
}

/** The questions of a service and its extras, as a customer answers them: at the front door and in the try-out of set-up. */
export function OrderForm({
  questions,
  extras,
  answers,
  chosen,
  currency,
  problems,
  photoPlace,
  onAnswers,
  onChosen,
}: OrderFormProps) {
  const answer = (id: string, value: Answer | undefined) =>
    onAnswers(
      Object.fromEntries(Object.entries({ ...answers, [id]: value }).filter(([, v]) => v !== undefined)) as Answers,
    );
  const quantityOf = (id: number) => chosen.find((x) => x.id === id)?.quantity ?? 0;
  const setQuantity = (id: number, quantity: number) =>
    onChosen([...chosen.filter((x) => x.id !== id), ...(quantity > 0 ? [{ id, quantity }] : [])]);
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr)", gap: 4 }}>
      {shownQuestions(questions, answers).map((question) => (
        <Box key={question.id} role="group" aria-label={question.words}>
          <Box sx={{ fontWeight: 650, mb: 1 }}>
            {question.words}
            {!question.required && (
              <Box component="span" sx={{ fontWeight: 400, color: ink.ash }}>
                {" "}
                (optional)
              </Box>
            )}
          </Box>
          {question.help && <Box sx={{ color: ink.ash, fontSize: 15, mb: 1 }}>{question.help}</Box>}
          <Asked
            question={question}
            value={answers[question.id]}
            place={photoPlace?.(question.id)}
            onValue={(value) => answer(question.id, value)}
          />
          {problems[question.id] && (
            <FormHelperText error role="alert">
              {problems[question.id]}
            </FormHelperText>
          )}
        </Box>
      ))}
      {extras.map((extra) => (
        <Box
          key={extra.id}
          role="group"
          aria-label={extra.name}
          sx={{
            display: "flex",
            flexWrap: "wrap",
            alignItems: "center",
            gap: 2,
            borderTop: `1px solid ${ink.line}`,
            pt: 2,
          }}
        >
          <Box sx={{ flex: "1 0 110px" }}>
            {extra.name}
            <Box component="span" sx={{ color: ink.ash }}>
              , {moneyWords(extra.priceMinor, currency)} a {extra.unit}
            </Box>
          </Box>
          <Counter
            value={quantityOf(Number(extra.id))}
            min={0}
            max={extra.most}
            onValue={(n) => setQuantity(Number(extra.id), n)}
            what={extra.name}
          />
        </Box>
      ))}
    </Box>
  );
}

function Asked({
  question,
  value,
  place,
  onValue,
}: {
  question: Question;
  value: Answer | undefined;
  place: string | undefined;
  onValue: (value: Answer | undefined) => void;
}) {
  switch (question.kind) {
    case "yes-no":
      return (
        <Row>
          {[true, false].map((is) => (
            <Pick key={String(is)} on={value === is} onPick={() => onValue(is)}>
              {is ? "Yes" : "No"}
            </Pick>
          ))}
        </Row>
      );
    case "one":
      return (
        <Row>
          {question.choices.map((c) => (
            <Pick
              key={c.id}
              on={value === c.id}
              onPick={() => onValue(value === c.id && !question.required ? undefined : c.id)}
            >
              {c.words}
            </Pick>
          ))}
        </Row>
      );
    case "several": {
      const picked = Array.isArray(value) ? value : [];
      return (
        <Row>
          {question.choices.map((c) => (
            <FormControlLabel
              key={c.id}
              control={
                <Checkbox
                  checked={picked.includes(c.id)}
                  onChange={(e) => onValue(e.target.checked ? [...picked, c.id] : picked.filter((p) => p !== c.id))}
                />
              }
              label={c.words}
            />
          ))}
        </Row>
      );
    }
    case "count":
      return (
        <Counter
          value={typeof value === "number" ? value : null}
          min={question.min}
          max={question.max}
          onValue={onValue}
          what={question.words}
        />
      );
    case "number":
      return (
        <TextField
          type="number"
          value={typeof value === "number" ? value : ""}
          onChange={(e) => onValue(e.target.value === "" ? undefined : Number(e.target.value))}
          slotProps={{
            htmlInput: {
              min: question.min,
              max: question.max,
              step: question.step,
              "aria-label": `${question.words}, ${question.unit}`,
            },
            input: { endAdornment: question.unit },
          }}
          sx={{ width: 160 }}
        />
      );
    case "tick":
      return (
        <FormControlLabel
          control={<Checkbox checked={value === true} onChange={(e) => onValue(e.target.checked || undefined)} />}
          label="Yes"
        />
      );
    case "photo":
      return (
        <PhotoField
          tokens={Array.isArray(value) ? value : []}
          most={question.most}
          what={question.words}
          {...(place && { place })}
          onTokens={(tokens) => onValue(tokens.length ? tokens : undefined)}
        />
      );
    case "text":
      return (
        <TextField
          multiline
          minRows={2}
          fullWidth
          value={typeof value === "string" ? value : ""}
          onChange={(e) => onValue(e.target.value || undefined)}
          slotProps={{ htmlInput: { maxLength: question.most, "aria-label": question.words } }}
        />
      );
  }
}

const Row = ({ children }: { children: ReactNode }) => (
  <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap" }}>{children}</Box>
);

export const Pick = ({ on, onPick, children }: { on: boolean; onPick: () => void; children: ReactNode }) => (
  <ButtonBase
    aria-pressed={on}
    onClick={onPick}
    sx={{
      minWidth: 72,
      minHeight: 44,
      px: 4,
      borderRadius: "22px 22px 6px 6px",
      border: `1px solid ${on ? ink.accent : ink.line}`,
      bgcolor: on ? ink.accent : "#fff",
      color: on ? ink.paper : ink.ink,
      fontSize: "inherit",
    }}
  >
    {children}
  </ButtonBase>
);

/** A whole number with two buttons; nothing is said until one of them is pressed. */
export function Counter({
  value,
  min,
  max,
  onValue,
  what,
}: {
  value: number | null;
  min: number;
  max: number;
  onValue: (value: number) => void;
  what: string;
}) {
  return (
    <Box sx={{ display: "flex", alignItems: "center", gap: 2 }}>
      <IconButton
        aria-label={`Fewer: ${what}`}
        disabled={value === null || value <= min}
        onClick={() => onValue((value ?? min) - 1)}
        sx={{ border: `1px solid ${ink.line}` }}
      >
        <Remove fontSize="small" />
      </IconButton>
      <Box aria-live="polite" sx={{ minWidth: 28, textAlign: "center", fontWeight: 650 }}>
        {value ?? "–"}
      </Box>
      <IconButton
        aria-label={`More: ${what}`}
        disabled={value !== null && value >= max}
        onClick={() => onValue(value === null ? Math.max(min, 1) : value + 1)}
        sx={{ border: `1px solid ${ink.line}` }}
      >
        <Add fontSize="small" />
      </IconButton>
    </Box>
  );
}
