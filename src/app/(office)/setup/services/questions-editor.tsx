"use client";
import { type Choice, type Condition, effectsIn, type Question } from "@/core/catalogue/questions";
import { Field, WholeField } from "@/ui/form-parts";
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
import { EffectFields } from "./effect-fields";

const kinds: Record<Question["kind"], string> = {
  "yes-no": "yes or no",
  one: "one choice",
  several: "several choices",
  count: "a count",
  number: "a measure",
  text: "a few words",
  tick: "a tick",
  photo: "photos",
};

/** What a field that changes nothing can be answered with. */
const plainKinds: Question["kind"][] = ["text", "one", "yes-no", "tick"];

type Wrong = (path: string) => string | undefined;

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

function Kind({
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

/** "Only if … is …", chosen from the answers that earlier questions have. */
function ShownIf({
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

function ofKind(kind: Question["kind"], { id, words, help, billed, required, shownIf }: Question): Question {
  const common = { id, words, required, ...(help && { help }), ...(billed && { billed }), ...(shownIf && { shownIf }) };
  switch (kind) {
    case "yes-no":
      return { ...common, kind };
    case "one":
    case "several":
      return {
        ...common,
        kind,
        choices: [
          { id: "a", words: "" },
          { id: "b", words: "" },
        ],
      };
    case "count":
      return { ...common, kind, min: 1, max: 10, included: 1 };
    case "number":
      return { ...common, kind, min: 0, max: 100, step: 1, unit: "m" };
    case "text":
      return { ...common, kind, most: 300 };
    case "tick":
      return { ...common, kind };
    case "photo":
      return { ...common, kind, most: 3 };
  }
}

/** An id that no other of the list has. */
function freshId(list: readonly { id: string }[]): string {
  let n = list.length + 1;
  while (list.some((entry) => entry.id === `q${n}`)) n++;
  return `q${n}`;
}
