"use client";
import { moneyTyped, parseMoney } from "@/core/money/amounts";
import { clock, parseClock, weekdayNames } from "@/core/time/words";
import { useHabits, weekdaysFrom } from "@/ui/habits";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField, { type TextFieldProps } from "@mui/material/TextField";
import { type ReactNode, useEffect, useState } from "react";

/** A text field that shows the operation's own sentence. */
export function Field({ wrong, ...props }: TextFieldProps & { wrong?: string }) {
  return <TextField {...props} error={!!wrong} helperText={wrong ?? props.helperText} />;
}

/** Typed text that stands for a number of some kind: keeps what was typed, tells its value (NaN where it is none). */
function ParsedField({
  value,
  show,
  parse,
  onValue,
  hint,
  wrong,
  ...props
}: Omit<TextFieldProps, "value" | "onChange"> & {
  value: number;
  show: (value: number) => string;
  parse: (text: string) => number | null;
  onValue: (value: number) => void;
  hint: string;
  wrong?: string;
}) {
  const [text, setText] = useState(() => show(value));
  const parsed = parse(text);
  useEffect(() => {
    if (Number.isFinite(value) && parse(text) !== value) setText(show(value));
    // Only a value from outside changes the text.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [value]);
  return (
    <TextField
      {...props}
      value={text}
      error={parsed === null || !!wrong}
      helperText={parsed === null ? hint : (wrong ?? props.helperText)}
      onChange={(e) => {
        setText(e.target.value);
        onValue(parse(e.target.value) ?? NaN);
      }}
    />
  );
}

type NumberProps = Omit<TextFieldProps, "value" | "onChange"> & {
  value: number;
  onValue: (value: number) => void;
  wrong?: string;
};

export const WholeField = (props: NumberProps) => (
  <ParsedField
    {...props}
    show={String}
    parse={(text) => (/^\d{1,7}$/.test(text.trim()) ? Number(text) : null)}
    hint="A whole number"
  />
);

/** A whole number, or nothing. */
export const OptionalWholeField = ({
  value,
  onValue,
  ...props
}: Omit<NumberProps, "value" | "onValue"> & { value: number | null; onValue: (value: number | null) => void }) => (
  <ParsedField
    {...props}
    value={value ?? none}
    onValue={(typed) => onValue(typed === none ? null : typed)}
    show={(v) => (v === none ? "" : String(v))}
    parse={(text) => (text.trim() === "" ? none : /^\d{1,7}$/.test(text.trim()) ? Number(text) : null)}
    hint="A whole number, or nothing"
  />
);

const none = -1;

export const MoneyField = ({ currency, ...props }: NumberProps & { currency: string }) => (
  <ParsedField
    {...props}
    show={(v) => moneyTyped(v, currency)}
    parse={(text) => parseMoney(text, currency)}
    hint="An amount, such as 89.50"
  />
);

/** The same with a minus, where something may become less. */
export const SignedWholeField = (props: NumberProps) => (
  <ParsedField
    {...props}
    show={String}
    parse={(text) =>
      text.trim() === "" ? 0 : /^[-−]?\d{1,6}$/.test(text.trim()) ? Number(text.trim().replace("−", "-")) : null
    }
    hint="A whole number"
  />
);

export const SignedMoneyField = ({ currency, ...props }: NumberProps & { currency: string }) => (
  <ParsedField
    {...props}
    show={(v) => moneyTyped(v, currency)}
    hint="An amount, such as 30 or -12.50"
    parse={(text) => {
      const [, minus, rest] = /^([-−]?)(.*)$/.exec(text.trim())!;
      const amount = parseMoney(rest!, currency);
      return amount === null ? null : minus ? -amount : amount;
    }}
  />
);

/** Minutes from an evening to a morning. */
const longestNight = 14 * 60;

/** A time of day; `after` another one it may lie in the night that follows: then its minute is beyond 1440. */
export const TimeField = ({ after, ...props }: NumberProps & { after?: number }) => (
  <ParsedField
    {...props}
    show={clock}
    parse={(text) => {
      const minute = parseClock(text);
      // Whoever types an end just before its beginning has mistyped it.
      const isNight = minute !== null && after !== undefined && minute < after && minute + 1440 - after <= longestNight;
      return isNight ? minute + 1440 : minute;
    }}
    hint="A time, such as 9:00"
    {...(after !== undefined && props.value > 1440 && { helperText: "The next day" })}
  />
);

/** Weekdays as a bit mask (bit 0 is Monday). */
export function WeekdaysField({
  label,
  value,
  onValue,
  wrong,
}: {
  label: string;
  value: number;
  onValue: (value: number) => void;
  wrong?: string;
}) {
  const { weekStart } = useHabits();
  return (
    <Box role="group" aria-label={label}>
      <Box sx={{ fontSize: 13, color: ink.ash, mb: 1 }}>{label}</Box>
      <Box sx={{ display: "flex", gap: 1 }}>
        {weekdaysFrom(weekStart).map((i) => {
          const name = weekdayNames[i]!;
          const on = (value & (1 << i)) !== 0;
          return (
            <Box
              key={name}
              component="button"
              type="button"
              aria-pressed={on}
              aria-label={name}
              onClick={() => onValue(value ^ (1 << i))}
              sx={{
                width: 42,
                height: 38,
                font: "inherit",
                fontSize: 14,
                borderRadius: "20px 20px 6px 6px",
                border: `1px solid ${on ? ink.pine : ink.line}`,
                bgcolor: on ? ink.pine : "#fff",
                color: on ? ink.paper : ink.ink,
                cursor: "pointer",
              }}
            >
              {name.slice(0, 2)}
            </Box>
          );
        })}
      </Box>
      {wrong && <Box sx={{ color: "error.main", fontSize: 12.5, mt: 1 }}>{wrong}</Box>}
    </Box>
  );
}

/** A share in percent, kept in basis points: "12.5". */
export const PercentField = (props: NumberProps) => (
  <ParsedField
    {...props}
    show={(v) => String(v / 100)}
    hint="A share in percent, such as 12.5"
    parse={(text) =>
      /^\d{1,4}([.,]\d{1,2})?$/.test(text.trim()) ? Math.round(Number(text.trim().replace(",", ".")) * 100) : null
    }
  />
);

export const Columns = ({ children }: { children: ReactNode }) => (
  <Box
    sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fit, minmax(150px, 1fr))", gap: 3, alignItems: "start" }}
  >
    {children}
  </Box>
);

/** How many: whole, or with two decimals. */
export const QuantityField = (props: NumberProps) => (
  <ParsedField
    {...props}
    show={String}
    parse={(text) => (/^\d{1,4}([.,]\d{1,2})?$/.test(text.trim()) ? Number(text.trim().replace(",", ".")) : null)}
    hint="A number, such as 1.5"
  />
);

/** One of the business's tax rates; where there are none, or it is another, a share. */
export function TaxField({
  taxRates,
  taxBp,
  onTax,
  wrong,
}: {
  taxRates: readonly { name: string; rateBp: number }[];
  taxBp: number;
  onTax: (taxBp: number) => void;
  wrong?: string;
}) {
  const known = taxRates.some((rate) => rate.rateBp === taxBp);
  if (taxRates.length === 0) return <PercentField label="Tax, %" value={taxBp} onValue={onTax} wrong={wrong} />;
  return (
    <TextField
      select
      label="Tax"
      value={taxBp}
      onChange={(e) => onTax(Number(e.target.value))}
      error={!!wrong}
      helperText={wrong}
    >
      {taxRates.map((rate) => (
        <MenuItem key={rate.name} value={rate.rateBp}>
          {/\d/.test(rate.name) ? rate.name : `${rate.name}, ${rate.rateBp / 100}%`}
        </MenuItem>
      ))}
      {!known && <MenuItem value={taxBp}>{taxBp / 100}%</MenuItem>}
    </TextField>
  );
}
