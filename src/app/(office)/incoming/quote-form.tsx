"use client";
import type { OperationInput, ViewOutput } from "@/api/client";
import { quoteLines, withServices } from "@/core/catalogue/quotes";
import { type Line, moneyWords, totalOf } from "@/core/money/amounts";
import { durationWords } from "@/core/time/words";
import { DateField } from "@/ui/date-field";
import { FormFrame } from "@/ui/form-frame";
import { Columns, Field, MoneyField, QuantityField, SignedMoneyField, TaxField, WholeField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import { OftenField } from "@/ui/often-field";
import { useKeptForm } from "@/ui/use-kept-form";
import Add from "@mui/icons-material/Add";
import Close from "@mui/icons-material/Close";
import Alert from "@mui/material/Alert";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
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
  const setLine = (i: number, part: Partial<Line>) =>
    set({ lines: draft.lines.map((line, j) => (j === i ? { ...line, ...part } : line)) });
  const complete = draft.lines.every((line) => Number.isFinite(line.quantity) && Number.isFinite(line.unitMinor));
  const totals = complete ? totalOf(quoteLines(draft.lines, pricesIncludeTax)) : null;
  const mainTax = draft.lines[0]?.taxBp ?? data.taxRates[0]?.rateBp ?? 0;
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
        {draft.lines.map((line, i) => (
          <Box
            key={i}
            role="group"
            aria-label={`Line ${i + 1}`}
            sx={{ display: "grid", gridTemplateColumns: "1fr auto", gap: 3, alignItems: "start", mb: 2 }}
          >
            <Field
              label="Description"
              value={line.description}
              onChange={(e) => setLine(i, { description: e.target.value })}
              wrong={wrong(`/lines/${i}/description`)}
            />
            <IconButton
              aria-label={`Take line ${i + 1} away`}
              onClick={() => set({ lines: draft.lines.filter((_, j) => j !== i) })}
            >
              <Close fontSize="small" />
            </IconButton>
            <Box sx={{ display: "grid", gridTemplateColumns: "84px 1fr 170px", gap: 2 }}>
              <QuantityField
                label="How many"
                value={line.quantity}
                onValue={(quantity) => setLine(i, { quantity })}
                wrong={wrong(`/lines/${i}/quantity`)}
              />
              <SignedMoneyField
                currency={currency}
                label={`Price of one, ${currency}`}
                value={line.unitMinor}
                onValue={(unitMinor) => setLine(i, { unitMinor })}
                wrong={wrong(`/lines/${i}/unitMinor`)}
              />
              <TaxField
                taxRates={data.taxRates}
                taxBp={line.taxBp}
                onTax={(taxBp) => setLine(i, { taxBp })}
                wrong={wrong(`/lines/${i}/taxBp`)}
              />
            </Box>
          </Box>
        ))}
        <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "center", gap: 3, flexWrap: "wrap" }}>
          <Button
            size="small"
            startIcon={<Add />}
            onClick={() =>
              set({ lines: [...draft.lines, { description: "", quantity: 1, unitMinor: 0, taxBp: mainTax }] })
            }
          >
            Another line
          </Button>
          <Box role="status" sx={{ textAlign: "right" }}>
            {totals && draft.lines.length > 0 && (
              <>
                All of it <b>{moneyWords(totals.totalMinor, currency)}</b>
                <Box sx={{ color: ink.ash, fontSize: 13.5 }}>of that {moneyWords(totals.taxMinor, currency)} tax</Box>
              </>
            )}
          </Box>
        </Box>
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
