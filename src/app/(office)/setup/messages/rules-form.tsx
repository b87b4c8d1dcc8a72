"use client";
import type { ViewOutput } from "@/api/client";
import { languageNames, languages, type Language } from "@/core/messages/languages";
import { clock } from "@/core/time/words";
import { counted } from "@/core/words";
import { FormFrame } from "@/ui/form-frame";
import { Columns, TimeField, WholeField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import { useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useKeptForm } from "@/ui/use-kept-form";
import DeleteOutlined from "@mui/icons-material/DeleteOutlined";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";

const wordsIn = (text: string): string[] =>
  text
    .split(",")
    .map((word) => word.trim())
    .filter(Boolean);

type Rules = ViewOutput<"message-setup">["rules"];
type Rule = Rules["rules"][number];

/** When customers may be written to, in which language and how often; and when they are reminded of a visit. */
export function RulesForm() {
  const { rules, currency } = useShown("message-setup", {});
  const { draft, set, wrong, round, frame } = useKeptForm({
    operation: "save-message-rules",
    of: "messages",
    from: rules,
    input: (d: Rules) => d,
    name: () => "Messages",
    saved: () => {},
  });
  const change = (i: number, part: Partial<Rule>) =>
    set({ rules: draft.rules.map((rule, n) => (n === i ? { ...rule, ...part } : rule)) });
  const setAnswer = (i: number, part: Partial<Rules["quickAnswers"][number]>) =>
    set({ quickAnswers: draft.quickAnswers.map((answer, n) => (n === i ? { ...answer, ...part } : answer)) });
  return (
    <FormFrame title="Reminders and hours" key={round} {...frame}>
      <FormSection
        title="Reminders of a visit"
        said={counted(draft.rules.length, "reminder")}
        note="Each goes once for each promise. A visit that is moved gets new ones; two visits on one day are one message; whoever booked after the moment is not reminded."
      >
        <Box sx={{ display: "grid", gap: 3 }}>
          {draft.rules.map((rule, i) => (
            <RuleRow
              key={i}
              nth={i + 1}
              rule={rule}
              wrong={wrong(`/rules/${i}`)}
              onChange={(part) => change(i, part)}
              onRemove={() => set({ rules: draft.rules.filter((_, n) => n !== i) })}
            />
          ))}
        </Box>
        <Button
          variant="outlined"
          sx={{ justifySelf: "start" }}
          disabled={draft.rules.length >= 12}
          onClick={() =>
            set({
              rules: [
                ...draft.rules,
                { id: null, daysBefore: 3, at: 17 * 60, minutesBefore: null, outside: "earlier", asks: false },
              ],
            })
          }
        >
          Add a reminder
        </Button>
      </FormSection>
      <FormSection
        title="Allowed hours"
        said={`${clock(draft.from)} to ${clock(draft.to)}`}
        note="In the customer’s own time zone. Answers to what somebody has just done come at any hour."
      >
        <Columns>
          <TimeField
            label="Write to customers from"
            value={draft.from}
            onValue={(from) => set({ from })}
            wrong={wrong("/from")}
          />
          <TimeField label="Until" value={draft.to} onValue={(to) => set({ to })} wrong={wrong("/to")} />
          <WholeField
            label="Messages on one day, at most"
            value={draft.mostADay}
            onValue={(mostADay) => set({ mostADay })}
            wrong={wrong("/mostADay")}
            helperText="To one customer, of our own accord"
          />
          <WholeField
            label="Changes: hours before"
            value={draft.urgentMinutes / 60}
            onValue={(hours) => set({ urgentMinutes: hours * 60 })}
            wrong={wrong("/urgentMinutes")}
            helperText="A moved or cancelled visit is told by then, at night if need be"
          />
        </Columns>
      </FormSection>
      <FormSection title="Your team" note="Which of these lists and summaries go out is said under Occasions.">
        <Columns>
          <TimeField
            label="Tomorrow’s list and the summary at"
            value={draft.eveningAt}
            onValue={(eveningAt) => set({ eveningAt })}
            wrong={wrong("/eveningAt")}
          />
          <TimeField
            label="Today’s list at"
            value={draft.morningAt}
            onValue={(morningAt) => set({ morningAt })}
            wrong={wrong("/morningAt")}
          />
        </Columns>
      </FormSection>
      <FormSection
        title="Words of danger"
        note="Whoever writes one of these stands at the top of Today at once, whatever else they write. Comma between two."
      >
        <Columns>
          {languages.map((language) => (
            <TextField
              key={language}
              label={languageNames[language]}
              multiline
              defaultValue={draft.dangers[language].join(", ")}
              onChange={(e) => set({ dangers: { ...draft.dangers, [language]: wordsIn(e.target.value) } })}
              error={!!wrong(`/dangers/${language}`)}
              helperText={wrong(`/dangers/${language}`)}
            />
          ))}
        </Columns>
      </FormSection>
      <FormSection
        title="Words to begin an answer with"
        said={counted(draft.quickAnswers.length, "answer")}
        note="Stand above what you write in a conversation, in the customer’s language. {{my_link}} is their own page."
      >
        {draft.quickAnswers.map((answer, i) => (
          <Box key={i} sx={{ display: "flex", gap: 3, alignItems: "flex-start" }}>
            <TextField
              label="Called"
              value={answer.name}
              onChange={(e) => setAnswer(i, { name: e.target.value })}
              error={!!wrong(`/quickAnswers/${i}/name`)}
              helperText={wrong(`/quickAnswers/${i}/name`)}
              sx={{ width: 150, flex: "none" }}
            />
            {languages.map((language) => (
              <TextField
                key={language}
                label={languageNames[language]}
                multiline
                value={answer.words[language]}
                onChange={(e) => setAnswer(i, { words: { ...answer.words, [language]: e.target.value } })}
                error={!!wrong(`/quickAnswers/${i}/words/${language}`)}
                helperText={wrong(`/quickAnswers/${i}/words/${language}`)}
                sx={{ flex: 1 }}
              />
            ))}
            <IconButton
              aria-label={`Remove the answer ${answer.name}`}
              onClick={() => set({ quickAnswers: draft.quickAnswers.filter((_, n) => n !== i) })}
            >
              <DeleteOutlined fontSize="small" />
            </IconButton>
          </Box>
        ))}
        <Button
          variant="outlined"
          sx={{ justifySelf: "start" }}
          disabled={draft.quickAnswers.length >= 30}
          onClick={() => set({ quickAnswers: [...draft.quickAnswers, { name: "", words: { en: "", es: "" } }] })}
        >
          Add an answer
        </Button>
      </FormSection>
      <FormSection title="Language and cost" said={languageNames[draft.language]}>
        <Columns>
          <TextField
            select
            label="We write in"
            value={draft.language}
            onChange={(e) => set({ language: e.target.value as Language })}
            helperText="A customer may have another one"
          >
            {languages.map((language) => (
              <MenuItem key={language} value={language}>
                {languageNames[language]}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            label={`What one part of a text costs, ${currency}`}
            value={draft.partMilli / 1000}
            type="number"
            slotProps={{ htmlInput: { step: 0.001, min: 0 } }}
            onChange={(e) => set({ partMilli: Math.max(0, Math.round(Number(e.target.value) * 1000)) })}
            error={!!wrong("/partMilli")}
            helperText={wrong("/partMilli") ?? "As your text service charges it"}
          />
        </Columns>
        <FormControlLabel
          control={<Checkbox checked={draft.countsOpened} onChange={(e) => set({ countsOpened: e.target.checked })} />}
          label="Note when an email is opened (by a picture in it; many mail programs hide that)"
        />
      </FormSection>
    </FormFrame>
  );
}

const outsideWords = { earlier: "comes before they end", later: "comes when they begin", drop: "is left out" } as const;

/** One reminder, as a sentence that is edited in place. */
function RuleRow({
  nth,
  rule,
  wrong,
  onChange,
  onRemove,
}: {
  nth: number;
  rule: Rule;
  wrong: string | undefined;
  onChange: (part: Partial<Rule>) => void;
  onRemove: () => void;
}) {
  const byDay = rule.minutesBefore === null;
  return (
    <Box
      role="group"
      aria-label={`Reminder ${nth}`}
      sx={{
        display: "flex",
        gap: 2,
        alignItems: "center",
        flexWrap: "wrap",
        borderTop: `1px solid ${ink.line}`,
        pt: 3,
      }}
    >
      <TextField
        select
        size="small"
        label="Counted"
        value={byDay ? "day" : "hours"}
        onChange={(e) =>
          onChange(
            e.target.value === "day"
              ? { daysBefore: 1, at: 17 * 60, minutesBefore: null }
              : { daysBefore: null, at: null, minutesBefore: 24 * 60 },
          )
        }
        sx={{ width: 150 }}
      >
        <MenuItem value="day">by days</MenuItem>
        <MenuItem value="hours">by hours</MenuItem>
      </TextField>
      {byDay ? (
        <>
          <Box sx={{ width: 130 }}>
            <WholeField
              label="Days before"
              value={rule.daysBefore ?? 0}
              onValue={(daysBefore) => onChange({ daysBefore })}
              wrong={wrong}
            />
          </Box>
          <Box sx={{ width: 120 }}>
            <TimeField label="At" value={rule.at ?? 0} onValue={(at) => onChange({ at })} wrong={undefined} />
          </Box>
        </>
      ) : (
        <Box sx={{ width: 130 }}>
          <WholeField
            label="Hours before"
            value={Math.round((rule.minutesBefore ?? 60) / 60)}
            onValue={(hours) => onChange({ minutesBefore: Math.max(1, hours) * 60 })}
            wrong={wrong}
          />
        </Box>
      )}
      <TextField
        select
        size="small"
        label="Outside the hours it"
        value={rule.outside}
        onChange={(e) => onChange({ outside: e.target.value as Rule["outside"] })}
        sx={{ width: 220 }}
      >
        {Object.entries(outsideWords).map(([value, words]) => (
          <MenuItem key={value} value={value}>
            {words}
          </MenuItem>
        ))}
      </TextField>
      <FormControlLabel
        control={<Checkbox checked={rule.asks} onChange={(e) => onChange({ asks: e.target.checked })} />}
        label="asks for a yes"
      />
      <IconButton aria-label={`Remove reminder ${nth}`} onClick={onRemove}>
        <DeleteOutlined />
      </IconButton>
    </Box>
  );
}
