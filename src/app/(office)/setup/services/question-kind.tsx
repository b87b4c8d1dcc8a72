"use client";
import { type Choice, type Question } from "@/core/catalogue/questions";
import { Field, WholeField } from "@/ui/form-parts";
import Add from "@mui/icons-material/Add";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { ReactNode } from "react";
import type { SetupData } from "../data";
import { EffectFields } from "./effect-fields";
import { freshId, type Wrong } from "./question-drafts";

interface KindProps<Q extends Question = Question> {
  question: Q;
  onQuestion: (question: Question) => void;
  data: SetupData;
  wrong: Wrong;
}
type Of<K extends Question["kind"]> = Extract<Question, { kind: K }>;

/** What a question asks for, by its kind, and what the answers do. A plain one does nothing. */
export function Kind({ plain, ...props }: KindProps & { plain: boolean }) {
  const { question, onQuestion, data, wrong } = props;
  switch (question.kind) {
    case "yes-no":
      return (["yes", "no"] as const).map((answer) => (
        <EffectFields
          key={answer}
          words={answer === "yes" ? "Yes" : "No"}
          effect={question[answer]}
          onEffect={(effect) => onQuestion({ ...question, [answer]: effect })}
          data={data}
        />
      ));
    case "one":
    case "several":
      return (
        <Choices
          choices={question.choices}
          onChoices={(choices) => onQuestion({ ...question, choices })}
          data={data}
          wrong={wrong}
          plain={plain}
        />
      );
    case "count":
      return <Count {...props} question={question} />;
    case "number":
      return <Measure {...props} question={question} />;
    case "photo":
      return (
        <Box sx={{ mt: 2 }}>
          <WholeField
            label="At most"
            value={question.most}
            onValue={(most) => onQuestion({ ...question, most })}
            wrong={wrong("/most")}
            sx={{ width: 100 }}
          />
        </Box>
      );
    case "text":
    case "tick":
      return null;
  }
}

/** From how much to how much, and what else stands beside it. */
function Bounds({
  question,
  onQuestion,
  wrong,
  children,
}: Omit<KindProps<Of<"count"> | Of<"number">>, "data"> & { children: ReactNode }) {
  return (
    <Box sx={{ display: "flex", gap: 2, mt: 2 }}>
      <WholeField
        label="At least"
        value={question.min}
        onValue={(min) => onQuestion({ ...question, min })}
        sx={{ width: 100 }}
      />
      <WholeField
        label="At most"
        value={question.max}
        onValue={(max) => onQuestion({ ...question, max })}
        wrong={wrong("/max")}
        sx={{ width: 100 }}
      />
      {children}
    </Box>
  );
}

function Count(props: KindProps<Of<"count">>) {
  const { question, onQuestion, data } = props;
  return (
    <>
      <Bounds {...props}>
        <WholeField
          label="In the price"
          value={question.included ?? 0}
          onValue={(included) => onQuestion({ ...question, included })}
          sx={{ width: 110 }}
        />
      </Bounds>
      <EffectFields
        each
        words="Each one more"
        effect={question.each}
        onEffect={(each) => onQuestion({ ...question, each })}
        data={data}
      />
    </>
  );
}

function Measure(props: KindProps<Of<"number">>) {
  const { question, onQuestion, data } = props;
  return (
    <>
      <Bounds {...props}>
        <TextField
          select
          label="In steps of"
          value={question.step}
          onChange={(e) => onQuestion({ ...question, step: Number(e.target.value) })}
          sx={{ width: 110 }}
        >
          {[0.1, 0.5, 1, 5, 10].map((step) => (
            <MenuItem key={step} value={step}>
              {step}
            </MenuItem>
          ))}
        </TextField>
        <Field
          label="Unit"
          value={question.unit}
          onChange={(e) => onQuestion({ ...question, unit: e.target.value })}
          sx={{ width: 90 }}
        />
      </Bounds>
      <EffectFields
        each
        words={`Each ${question.unit || "unit"}`}
        effect={question.each}
        onEffect={(each) => onQuestion({ ...question, each })}
        data={data}
      />
      <Brackets {...props} />
    </>
  );
}

/** What counts up to a measure, and beyond it. */
function Brackets({ question, onQuestion, data, wrong }: KindProps<Of<"number">>) {
  const brackets = question.brackets ?? [];
  const put = (next: typeof brackets) => onQuestion({ ...question, brackets: next });
  const set = (at: number, change: Partial<(typeof brackets)[number]>) =>
    put(brackets.map((bracket, i) => (i === at ? { ...bracket, ...change } : bracket)));
  return (
    <>
      {brackets.map((bracket, at) => (
        <Box key={at} sx={{ display: "flex", alignItems: "flex-start", gap: 2 }}>
          <Field
            label="Up to"
            value={bracket.upTo ?? ""}
            placeholder="no end"
            onChange={(e) => set(at, { upTo: e.target.value === "" ? null : Number(e.target.value) || 0 })}
            sx={{ width: 90, mt: 1.5 }}
          />
          <EffectFields words="then" effect={bracket.effect} onEffect={(effect) => set(at, { effect })} data={data} />
          <IconButton aria-label="Remove this bracket" onClick={() => put(brackets.filter((_, i) => i !== at))}>
            <Close fontSize="small" />
          </IconButton>
        </Box>
      ))}
      {wrong("/brackets") && <Box sx={{ color: "error.main", fontSize: 13 }}>{wrong("/brackets")}</Box>}
      <Button size="small" startIcon={<Add />} onClick={() => put([...brackets, { upTo: null, effect: {} }])}>
        Bracket
      </Button>
    </>
  );
}

function Choices({
  choices,
  onChoices,
  data,
  wrong,
  plain,
}: {
  choices: Choice[];
  onChoices: (choices: Choice[]) => void;
  data: SetupData;
  wrong: Wrong;
  plain: boolean;
}) {
  const set = (at: number, change: Partial<Choice>) =>
    onChoices(choices.map((c, i) => (i === at ? { ...c, ...change } : c)));
  return (
    <Box>
      {choices.map((choice, at) => (
        <Box key={choice.id} sx={{ display: "flex", gap: 2, alignItems: "flex-start" }}>
          <Field
            label={`Answer ${at + 1}`}
            value={choice.words}
            onChange={(e) => set(at, { words: e.target.value })}
            wrong={wrong(`/choices/${at}/words`)}
            sx={{ width: 150, mt: 1.5, flex: "none" }}
          />
          {!plain && (
            <EffectFields words="" effect={choice.effect} onEffect={(effect) => set(at, { effect })} data={data} />
          )}
          <IconButton
            aria-label={`Remove answer ${at + 1}`}
            onClick={() => onChoices(choices.filter((_, i) => i !== at))}
          >
            <Close fontSize="small" />
          </IconButton>
        </Box>
      ))}
      {wrong("/choices") && <Box sx={{ color: "error.main", fontSize: 13 }}>{wrong("/choices")}</Box>}
      <Button
        size="small"
        startIcon={<Add />}
        onClick={() => onChoices([...choices, { id: freshId(choices), words: "" }])}
      >
        Answer
      </Button>
    </Box>
  );
}
