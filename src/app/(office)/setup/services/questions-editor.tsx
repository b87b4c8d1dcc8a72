"use client";
import { effectsIn, type Question } from "@/core/catalogue/questions";
import { Field } from "@/ui/form-parts";
import { ink } from "@/ui/palette";
import Add from "@mui/icons-material/Add";
import ArrowUpward from "@mui/icons-material/ArrowUpward";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import type { SetupData } from "../data";
import { freshId, kinds, ofKind, plainKinds, type Wrong } from "./question-drafts";
import { Kind } from "./question-kind";
import { ShownIf } from "./question-shown-if";

/** The questions of a service, in the order in which they are asked. */
export function QuestionsEditor({
  questions,
  onQuestions,
  data,
  wrong,
  plain = false,
}: {
  questions: Question[];
  onQuestions: (questions: Question[]) => void;
  data: SetupData;
  wrong: Wrong;
  plain?: boolean;
}) {
  const offered = plain ? plainKinds : (Object.keys(kinds) as Question["kind"][]);
  const set = (at: number, question: Question) => onQuestions(questions.map((q, i) => (i === at ? question : q)));
  const up = (at: number) =>
    onQuestions(questions.map((q, i) => (i === at - 1 ? questions[at]! : i === at ? questions[at - 1]! : q)));
  return (
    <Box sx={{ display: "grid", gap: 3 }}>
      {questions.map((question, at) => (
        <Box
          key={question.id}
          role="group"
          aria-label={`Question ${at + 1}`}
          sx={{ borderTop: `1px solid ${ink.line}`, pt: 3 }}
        >
          <Box sx={{ display: "flex", gap: 2, alignItems: "flex-start" }}>
            <Field
              label={`Question ${at + 1}`}
              value={question.words}
              onChange={(e) => set(at, { ...question, words: e.target.value })}
              wrong={wrong(`/questions/${at}/words`) ?? wrong(`/questions/${at}`)}
              sx={{ flex: 1 }}
            />
            <IconButton aria-label={`Ask question ${at + 1} earlier`} disabled={at === 0} onClick={() => up(at)}>
              <ArrowUpward fontSize="small" />
            </IconButton>
            <IconButton
              aria-label={`Remove question ${at + 1}`}
              onClick={() => onQuestions(questions.filter((_, i) => i !== at))}
            >
              <Close fontSize="small" />
            </IconButton>
          </Box>
          <Box sx={{ display: "flex", gap: 2, alignItems: "center", mt: 2, flexWrap: "wrap" }}>
            <TextField
              select
              label="Answered with"
              value={question.kind}
              onChange={(e) => set(at, ofKind(e.target.value as Question["kind"], question))}
              sx={{ width: 160 }}
            >
              {offered.map((kind) => (
                <MenuItem key={kind} value={kind}>
                  {kinds[kind]}
                </MenuItem>
              ))}
            </TextField>
            <FormControlLabel
              control={
                <Switch
                  checked={question.required}
                  onChange={(e) => set(at, { ...question, required: e.target.checked })}
                />
              }
              label="Required"
            />
          </Box>
          {effectsIn(question).some((effect) => effect.price) && (
            <Field
              label="On the bill"
              value={question.billed ?? ""}
              placeholder={question.words}
              onChange={(e) => set(at, { ...question, billed: e.target.value || undefined })}
              wrong={wrong(`/questions/${at}/billed`)}
              helperText="What the line is called, such as “Further flue”"
              sx={{ mt: 2, maxWidth: 320 }}
            />
          )}
          <ShownIf
            question={question}
            earlier={questions.slice(0, at)}
            onCondition={(shownIf) => set(at, { ...question, shownIf })}
            wrong={wrong(`/questions/${at}/shownIf`)}
          />
          {!(plain && question.kind === "yes-no") && (
            <Kind
              question={question}
              onQuestion={(q) => set(at, q)}
              data={data}
              wrong={(path) => wrong(`/questions/${at}${path}`)}
              plain={plain}
            />
          )}
        </Box>
      ))}
      <Box>
        <Button
          startIcon={<Add />}
          onClick={() =>
            onQuestions([
              ...questions,
              {
                id: freshId(questions),
                words: "",
                required: true,
                kind: plain ? "text" : "yes-no",
                ...(plain && { most: 200 }),
              } as Question,
            ])
          }
        >
          Question
        </Button>
      </Box>
    </Box>
  );
}
