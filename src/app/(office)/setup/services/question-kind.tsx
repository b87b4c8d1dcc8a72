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
import type { SetupData } from "../data";
import { EffectFields } from "./effect-fields";
import { freshId, type Wrong } from "./question-drafts";

export function Kind({
  question,
  onQuestion,
  data,
  wrong,
  plain,
}: {
  question: Question;
  onQuestion: (question: Question) => void;
  data: SetupData;
  wrong: Wrong;
  plain: boolean;
}) {
  switch (question.kind) {
    case "yes-no":
      return (
        <>
          <EffectFields
            words="Yes"
            effect={question.yes}
            onEffect={(yes) => onQuestion({ ...question, yes })}
            data={data}
          />
          <EffectFields
            words="No"
            effect={question.no}
            onEffect={(no) => onQuestion({ ...question, no })}
            data={data}
          />
        </>
      );
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
      return (
        <>
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
            <WholeField
              label="In the price"
              value={question.included ?? 0}
              onValue={(included) => onQuestion({ ...question, included })}
              sx={{ width: 110 }}
            />
          </Box>
          <EffectFields
            each
            words="Each one more"
            effect={question.each}
            onEffect={(each) => onQuestion({ ...question, each })}
            data={data}
          />
        </>
      );
    case "number":
      return (
        <>
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
          </Box>
          <EffectFields
            each
            words={`Each ${question.unit || "unit"}`}
            effect={question.each}
            onEffect={(each) => onQuestion({ ...question, each })}
            data={data}
          />
          {(question.brackets ?? []).map((bracket, i) => (
            <Box key={i} sx={{ display: "flex", alignItems: "flex-start", gap: 2 }}>
              <Field
                label="Up to"
                value={bracket.upTo ?? ""}
                placeholder="no end"
                onChange={(e) =>
                  onQuestion({
                    ...question,
                    brackets: question.brackets!.map((b, k) =>
                      k === i ? { ...b, upTo: e.target.value === "" ? null : Number(e.target.value) || 0 } : b,
                    ),
                  })
                }
                sx={{ width: 90, mt: 1.5 }}
              />
              <EffectFields
                words="then"
                effect={bracket.effect}
                onEffect={(effect) =>
                  onQuestion({
                    ...question,
                    brackets: question.brackets!.map((b, k) => (k === i ? { ...b, effect } : b)),
                  })
                }
                data={data}
              />
              <IconButton
                aria-label="Remove this bracket"
                onClick={() => onQuestion({ ...question, brackets: question.brackets!.filter((_, k) => k !== i) })}
              >
                <Close fontSize="small" />
              </IconButton>
            </Box>
          ))}
          {wrong("/brackets") && <Box sx={{ color: "error.main", fontSize: 13 }}>{wrong("/brackets")}</Box>}
          <Button
            size="small"
            startIcon={<Add />}
            onClick={() =>
              onQuestion({ ...question, brackets: [...(question.brackets ?? []), { upTo: null, effect: {} }] })
            }
          >
            Bracket
          </Button>
        </>
      );
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
