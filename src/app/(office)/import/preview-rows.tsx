"use client";
import { bankLineOf } from "@/core/imports/bank-row";
import { repeatDetails, repeatOf } from "@/core/imports/repeat-row";
import { catalogueOf } from "@/core/imports/catalogue-row";
import { customerOf, type RowProblem } from "@/core/imports/customer-row";
import type { ImportKind } from "@/core/imports/fields";
import { type Columns, valuesOf } from "@/core/imports/match-columns";
import type { Table } from "@/core/imports/read-file";
import { moneyWords } from "@/core/money/amounts";
import { dateWords } from "@/core/time/words";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";

export interface Reading {
  ownPhone: string;
  currency: string;
  today: string;
}

const shown = 6;

/** The first rows as they will be, with what is wrong with each: by the same rules that look over all of them. */
export function PreviewRows({
  kind,
  table,
  columns,
  reading,
}: {
  kind: ImportKind;
  table: Table;
  columns: Columns;
  reading: Reading;
}) {
  return (
    <Box component="section" aria-label="The first rows as they will be">
      <Typography variant="h2" sx={{ mb: 2 }}>
        The first rows as they will be
      </Typography>
      {table.rows.slice(0, shown).map((cells, i) => {
        const { name, details, problems } = lineOf(kind, valuesOf(columns, cells), columns, reading);
        return (
          <Box key={i} sx={{ display: "flex", gap: 3, borderTop: `1px solid ${ink.line}`, py: 1.25, fontSize: 14.5 }}>
            <Box sx={{ width: 28, flex: "none", color: ink.ash, textAlign: "right" }}>{i + 1}</Box>
            <Box sx={{ width: 190, flex: "none", fontWeight: 650 }}>{name || "–"}</Box>
            <Box sx={{ flex: 1, minWidth: 0 }}>{details.filter(Boolean).join(" · ")}</Box>
            <Box sx={{ width: 300, flex: "none", color: ink.ember }}>{problems.map((p) => p.sentence).join(" ")}</Box>
          </Box>
        );
      })}
      <Box sx={{ color: ink.ash, fontSize: 14, mt: 1 }}>
        Addresses and people we know already are looked up in the next step.
      </Box>
    </Box>
  );
}

function lineOf(
  kind: ImportKind,
  values: Record<string, string>,
  { dates }: Columns,
  { ownPhone, currency, today }: Reading,
): { name: string; details: string[]; problems: RowProblem[] } {
  if (kind === "customers") {
    const { draft, problems } = customerOf(values, { dates, ownPhone });
    const { site, bill } = draft;
    return {
      name: draft.name,
      details: [
        draft.phone,
        draft.mail,
        site ? [site.line, site.town, site.postcode].filter(Boolean).join(", ") : "",
        draft.tags.join(", "),
        bill ? `bills to ${bill.name}` : "",
        draft.since ? `since ${dateWords(draft.since)}` : "",
      ],
      problems,
    };
  }
  if (kind === "repeats") {
    const { draft, problems } = repeatOf(values, { dates, currency, today });
    return { name: draft.customer || draft.mail || draft.phone, details: repeatDetails(draft, currency), problems };
  }
  if (kind === "bank lines") {
    const { draft, problems } = bankLineOf(values, { dates, currency });
    return {
      name: draft.name,
      details: [draft.date && dateWords(draft.date), moneyWords(draft.amountMinor, currency), draft.words],
      problems,
    };
  }
  const { draft, problems } = catalogueOf(values, kind, currency);
  return {
    name: draft.name || draft.code,
    details: [
      moneyWords(draft.priceMinor, currency),
      draft.minutes === null ? "" : `${draft.minutes} min`,
      draft.category,
      draft.unit && `per ${draft.unit}`,
    ],
    problems,
  };
}
