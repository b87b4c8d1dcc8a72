import { type Line, moneyWords, type Totals } from "@/core/money/amounts";
import { PercentField, Field, QuantityField, SignedMoneyField, TaxField } from "@/ui/form-parts";
import { ink } from "@/ui/palette";
import Add from "@mui/icons-material/Add";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import type { ReactNode } from "react";

type TypedLine = Line & { discountBp?: number };

/** Lines of a quote or an invoice as they are typed, with their sum. */
export function LineFields<L extends TypedLine>({
  lines,
  onLines,
  currency,
  taxRates,
  wrong,
  totals,
  fresh,
  beside,
}: {
  lines: readonly L[];
  onLines: (lines: L[]) => void;
  currency: string;
  taxRates: readonly { name: string; rateBp: number }[];
  wrong: (field: string) => string | undefined;
  /** Null while a line is not whole. */
  totals: Pick<Totals, "totalMinor" | "taxMinor"> | null;
  /** What a new line has beside. */
  fresh?: Omit<L, keyof Line>;
  /** Beside "Another line". */
  beside?: ReactNode;
}) {
  const setLine = (i: number, part: Partial<TypedLine>) =>
    onLines(lines.map((line, j) => (j === i ? { ...line, ...part } : line)));
  const mainTax = lines[0]?.taxBp ?? taxRates[0]?.rateBp ?? 0;
  const another = { description: "", quantity: 1, unitMinor: 0, taxBp: mainTax, ...fresh } as L;
  return (
    <>
      {lines.map((line, i) => (
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
          <IconButton aria-label={`Take line ${i + 1} away`} onClick={() => onLines(lines.filter((_, j) => j !== i))}>
            <Close fontSize="small" />
          </IconButton>
          <Box
            sx={{
              display: "grid",
              gridTemplateColumns: line.discountBp === undefined ? "84px 1fr 170px" : "76px 1fr 176px 72px",
              gap: 2,
            }}
          >
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
              taxRates={taxRates}
              taxBp={line.taxBp}
              onTax={(taxBp) => setLine(i, { taxBp })}
              wrong={wrong(`/lines/${i}/taxBp`)}
            />
            {line.discountBp !== undefined && (
              <PercentField
                label="Off, %"
                value={line.discountBp}
                onValue={(discountBp) => setLine(i, { discountBp })}
                wrong={wrong(`/lines/${i}/discountBp`)}
              />
            )}
          </Box>
        </Box>
      ))}
      <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "center", gap: 3, flexWrap: "wrap" }}>
        <Box sx={{ display: "flex", gap: 2, alignItems: "center" }}>
          <Button size="small" startIcon={<Add />} onClick={() => onLines([...lines, another])}>
            Another line
          </Button>
          {beside}
        </Box>
        <Box role="status" sx={{ textAlign: "right" }}>
          {totals && lines.length > 0 && (
            <>
              All of it <b>{moneyWords(totals.totalMinor, currency)}</b>
              <Box sx={{ color: ink.ash, fontSize: 13.5 }}>of that {moneyWords(totals.taxMinor, currency)} tax</Box>
            </>
          )}
        </Box>
      </Box>
    </>
  );
}
