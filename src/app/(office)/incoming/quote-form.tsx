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
import Alert from "@mui/material/Alert";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import Skeleton from "@mui/material/Skeleton";
import TextField from "@mui/material/TextField";

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

/** The draft with a pattern's work in place of what was there; words and dates stay. */
const withPattern = (
  draft: Draft,
  { items, lines, minutes, crew, depositMinor }: Beginning["patterns"][number],
): Partial<Draft> => ({ ...draft, items, lines, minutes, crew, depositMinor });

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
  const chosen = data.services.filter((s) => draft.items.some((item) => item.serviceId === s.id));
  const choose = (services: Service[]) => set(withServices(draft, chosen, services));
  const complete = draft.lines.every((line) => Number.isFinite(line.quantity) && Number.isFinite(line.unitMinor));
  const totals = complete ? totalOf(quoteLines(draft.lines, pricesIncludeTax)) : null;
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
      {data.patterns.length > 0 && (
        <TextField
          select
          label="Job pattern"
          value={draft.items[0]?.patternId ?? 0}
          onChange={(e) => {
            const pattern = data.patterns.find(({ id }) => id === Number(e.target.value));
            if (pattern) set(withPattern(draft, pattern));
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
            error={!!wrong("/items")}
            helperText={wrong("/items") ?? "It says who may do it, and by which terms."}
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
          lines={draft.lines}
          onLines={(lines) => set({ lines })}
          currency={currency}
          taxRates={data.taxRates}
          wrong={wrong}
          totals={totals}
        />
        {wrong("/lines") && (
          <Box role="alert" sx={{ color: "error.main", fontSize: 13.5 }}>
            {draft.lines.length ? wrong("/lines") : "Choose the work, or add a line."}
          </Box>
        )}
      </FormSection>
      <FormSection title="How and until when">
        <Columns>
          <WholeField
            label="Minutes at the place"
            value={draft.minutes}
            onValue={(minutes) => set({ minutes })}
            wrong={wrong("/minutes")}
            helperText={draft.minutes >= 60 ? durationWords(draft.minutes) : undefined}
          />
          <WholeField label="People" value={draft.crew} onValue={(crew) => set({ crew })} wrong={wrong("/crew")} />
        </Columns>
        <Columns>
          <MoneyField
            currency={currency}
            label={`Deposit, ${currency}`}
            value={draft.depositMinor}
            onValue={(depositMinor) => set({ depositMinor })}
            wrong={wrong("/depositMinor")}
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
      </FormSection>
    </FormFrame>
  );
}
