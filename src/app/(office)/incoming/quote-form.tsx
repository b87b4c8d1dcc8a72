"use client";
import type { OperationInput, ViewOutput } from "@/api/client";
import { quoteLines, withServices } from "@/core/catalogue/quotes";
import { totalOf } from "@/core/money/amounts";
import { durationWords } from "@/core/time/words";
import { DateField } from "@/ui/date-field";
import { FormFrame } from "@/ui/form-frame";
import { Columns, Field, MoneyField, WholeField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import { LineFields } from "@/ui/line-fields";
import { useLive } from "@/ui/live";
import { OftenField } from "@/ui/often-field";
import { useKeptForm } from "@/ui/use-kept-form";
import Add from "@mui/icons-material/Add";
import Alert from "@mui/material/Alert";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Skeleton from "@mui/material/Skeleton";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import { useState } from "react";

type Beginning = ViewOutput<"quote-draft">;
type Service = Beginning["services"][number];
type Draft = Beginning["draft"];

interface QuoteFormProps {
  about: OperationInput<"send-quote">["about"];
  name: string;
  onSent: () => void;
}

/** A quote as it is typed: what is done, its lines with their sum, until when it stands. */
export function QuoteForm(props: QuoteFormProps) {
  const { data, problem } = useLive("quote-draft", props.about);
  if (problem) return <Alert severity="warning">{problem.sentence}</Alert>;
  if (!data) return <Skeleton variant="rounded" height={420} />;
  return <Form {...props} data={data} />;
}

type WorkOfQuote = Pick<Draft, "option" | "items" | "lines" | "minutes" | "crew" | "depositMinor">;

/** What options begin to be called, the plainest first. */
const optionNames = ["Good", "Better", "Best"];

/** A pattern's work in place of what was there; words and dates stay. */
const withPattern = ({
  items,
  lines,
  minutes,
  crew,
  depositMinor,
}: Beginning["patterns"][number]): Partial<WorkOfQuote> => ({ items, lines, minutes, crew, depositMinor });

function Form({ about, name, data, onSent }: QuoteFormProps & { data: Beginning }) {
  const { draft, set, wrong, frame, round } = useKeptForm({
    operation: "send-quote",
    of: `quote ${about.kind} ${about.id}`,
    from: data.draft,
    input: (typed: Draft) => ({ about, ...typed }),
    name: () => `The quote to ${name}`,
    sent: true,
    saved: onSent,
  });
  const { currency, pricesIncludeTax } = data;
  const [shown, setShown] = useState(0);
  const options: WorkOfQuote[] = [draft, ...draft.further];
  const at = Math.min(shown, options.length - 1);
  const work = options[at]!;
  const setWork = (part: Partial<WorkOfQuote>) =>
    set(
      at === 0 ? part : { further: draft.further.map((option, i) => (i === at - 1 ? { ...option, ...part } : option)) },
    );
  const wrongHere = (field: string) => wrong(at === 0 ? field : `/further/${at - 1}${field}`);
  const chosen = data.services.filter((s) => work.items.some((item) => item.serviceId === s.id));
  const choose = (services: Service[]) => setWork(withServices(work, chosen, services));
  const complete = work.lines.every((line) => Number.isFinite(line.quantity) && Number.isFinite(line.unitMinor));
  const totals = complete ? totalOf(quoteLines(work.lines, pricesIncludeTax)) : null;
  const another = () => {
    const { option, items, lines, minutes, crew, depositMinor } = work;
    const fresh = { option: optionNames[options.length]!, items, lines, minutes, crew, depositMinor };
    set({ option: draft.option || option || optionNames[0]!, further: [...draft.further, fresh] });
    setShown(options.length);
  };
  const takeAway = () => {
    const [first, ...further] = options.filter((_, i) => i !== at);
    const { option, items, lines, minutes, crew, depositMinor } = first!;
    set({ option: further.length ? option : "", items, lines, minutes, crew, depositMinor, further });
    setShown(0);
  };
  return (
    <FormFrame
      key={round}
      {...frame}
      title={about.kind === "quote" ? `Quote ${about.id}` : "A quote"}
      save="Send the quote"
      note={
        about.kind === "booking"
          ? "It takes the place of the booking: the room is free again, and what was paid goes back."
          : "They get it by email and text, choose a time and accept it with one tap."
      }
    >
      <Box sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap" }}>
        {options.length > 1 && (
          <ToggleButtonGroup
            exclusive
            size="small"
            value={at}
            onChange={(_, i: number | null) => i !== null && setShown(i)}
            aria-label="Options to choose from"
          >
            {options.map(({ option }, i) => (
              <ToggleButton key={i} value={i} sx={{ textTransform: "none", px: 4 }}>
                {option || `Option ${i + 1}`}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        )}
        {options.length < optionNames.length && (
          <Button size="small" startIcon={<Add />} onClick={another}>
            {options.length === 1 ? "Let them choose between options" : "Another option"}
          </Button>
        )}
        {options.length > 1 && (
          <Button size="small" onClick={takeAway}>
            Take this one away
          </Button>
        )}
      </Box>
      {options.length > 1 && (
        <Field
          label="This option is called"
          value={work.option}
          onChange={(e) => setWork({ option: e.target.value })}
          wrong={wrongHere("/option")}
        />
      )}
      {data.patterns.length > 0 && (
        <TextField
          select
          label="Job pattern"
          value={work.items[0]?.patternId ?? 0}
          onChange={(e) => {
            const pattern = data.patterns.find(({ id }) => id === Number(e.target.value));
            if (pattern) setWork(withPattern(pattern));
          }}
          helperText="Fills in the work, its lines, minutes and people"
        >
          <MenuItem value={0}>none</MenuItem>
          {data.patterns.map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      )}
      <Autocomplete
        multiple
        size="small"
        options={data.services}
        value={chosen}
        getOptionLabel={(s) => s.name}
        getOptionKey={(s) => s.id}
        onChange={(_, services) => choose(services)}
        renderInput={(params) => (
          <TextField
            {...params}
            label="Work"
            error={!!wrongHere("/items")}
            helperText={wrongHere("/items") ?? "It says who may do it, and by which terms."}
          />
        )}
      />
      <OftenField
        often={draft.repeats[0] ?? null}
        onOften={(often) => set({ repeats: often ? [often] : [] })}
        wrong={wrong("/repeats")}
      />
      <FormSection title="What it costs" note={pricesIncludeTax ? "Prices with tax" : "Prices without tax"}>
        <LineFields
          lines={work.lines}
          onLines={(lines) => setWork({ lines })}
          currency={currency}
          taxRates={data.taxRates}
          wrong={wrongHere}
          totals={totals}
        />
        {wrongHere("/lines") && (
          <Box role="alert" sx={{ color: "error.main", fontSize: 13.5 }}>
            {work.lines.length ? wrongHere("/lines") : "Choose the work, or add a line."}
          </Box>
        )}
      </FormSection>
      <FormSection title="How and until when">
        <Columns>
          <WholeField
            label="Minutes at the place"
            value={work.minutes}
            onValue={(minutes) => setWork({ minutes })}
            wrong={wrongHere("/minutes")}
            helperText={work.minutes >= 60 ? durationWords(work.minutes) : undefined}
          />
          <WholeField
            label="People"
            value={work.crew}
            onValue={(crew) => setWork({ crew })}
            wrong={wrongHere("/crew")}
          />
        </Columns>
        <Columns>
          <MoneyField
            currency={currency}
            label={`Deposit, ${currency}`}
            value={work.depositMinor}
            onValue={(depositMinor) => setWork({ depositMinor })}
            wrong={wrongHere("/depositMinor")}
          />
          <DateField
            label="Stands until"
            value={draft.validUntil}
            onValue={(day) => day && set({ validUntil: day })}
            wrong={wrong("/validUntil")}
          />
        </Columns>
        <Field
          label="What they read above it"
          multiline
          minRows={3}
          value={draft.words}
          onChange={(e) => set({ words: e.target.value })}
          wrong={wrong("/words")}
        />
        <FormControlLabel
          control={<Checkbox checked={draft.signs} onChange={(e) => set({ signs: e.target.checked })} />}
          label="They sign it by name and pen when they accept"
        />
      </FormSection>
    </FormFrame>
  );
}
