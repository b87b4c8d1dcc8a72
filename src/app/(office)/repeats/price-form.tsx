"use client";
import { moneyWords } from "@/core/money/amounts";
import { noticeOn, pricePers, reviewed } from "@/core/repeats/price";
import { addMonths } from "@/core/time/dates";
import { dayShort } from "@/core/time/words";
import { DateField } from "@/ui/date-field";
import { MoneyField, WholeField } from "@/ui/form-parts";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import Box from "@mui/material/Box";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { RepeatDetails } from "./data";
import { OpenedForm } from "./term-fields";

type Per = (typeof pricePers)[number];
const perWords: Record<Per, string> = {
  catalogue: "by the catalogue",
  visit: "fixed, each visit",
  month: "by the month, visits included",
  year: "by the year, visits included",
};

/** What its visits cost from now on, and another price from a day on. */
export function PriceForm({ repeat, onDone }: { repeat: RepeatDetails; onDone: () => void }) {
  const { price } = repeat;
  const before = {
    per: price.per as Per,
    minor: price.per === "catalogue" ? repeat.valueMinor : price.minor,
    visits: price.per === "month" || price.per === "year" ? price.visits : 1,
    review: repeat.review && {
      date: repeat.review.date,
      byBp: repeat.review.byBp,
      noticeDays: repeat.review.noticeDays,
    },
  };
  const [terms, setTerms] = useState(before);
  const set = (change: Partial<typeof terms>) => setTerms({ ...terms, ...change });
  const { send, busy, wrong } = useChange("set-repeat-price");
  const sayWithUndo = useUndo();
  const money = (minor: number) => moneyWords(minor, repeat.currency);
  const input = { ...terms, review: terms.per === "catalogue" ? null : terms.review };
  const save = async () => {
    if (!(await send({ repeatId: repeat.id, ...input }))) return;
    onDone();
    sayWithUndo("The price counts for visits that are promised from now on", () =>
      send({ repeatId: repeat.id, ...before }),
    );
  };
  const isPaidAhead = terms.per === "month" || terms.per === "year";
  return (
    <OpenedForm
      says={isPaidAhead && "Its visits cost nothing themselves from now on."}
      disabled={busy}
      onDo={() => void save()}
    >
      <TextField select label="Price" value={terms.per} onChange={(e) => set({ per: e.target.value as Per })}>
        {pricePers.map((per) => (
          <MenuItem key={per} value={per}>
            {perWords[per]}
          </MenuItem>
        ))}
      </TextField>
      {terms.per !== "catalogue" && (
        <Stack direction="row" spacing={2}>
          <MoneyField
            label={`Amount a ${terms.per}`}
            currency={repeat.currency}
            value={terms.minor}
            onValue={(minor) => set({ minor })}
            wrong={wrong("/minor")}
          />
          {isPaidAhead && (
            <WholeField
              label={`Visits a ${terms.per}`}
              value={terms.visits}
              onValue={(visits) => set({ visits })}
              wrong={wrong("/visits")}
            />
          )}
        </Stack>
      )}
      {terms.per !== "catalogue" && (
        <FormControlLabel
          control={
            <Switch
              checked={terms.review !== null}
              onChange={(e) =>
                set({
                  review: e.target.checked ? { date: addMonths(repeat.today, 12), byBp: 300, noticeDays: 30 } : null,
                })
              }
            />
          }
          label="Another price from a day on"
        />
      )}
      {terms.per !== "catalogue" && terms.review && (
        <Review
          review={terms.review}
          onReview={(review) => set({ review })}
          wrong={wrong}
          said={(review) =>
            `${money(terms.minor)} until then, ${money(reviewed(terms.minor, review))} from ${dayShort(review.date)} ${review.date.slice(0, 4)}. ${repeat.customer.name} is told on ${dayShort(noticeOn(review))}.`
          }
        />
      )}
    </OpenedForm>
  );
}

type Reviewed = NonNullable<RepeatDetails["review"]>;

function Review({
  review,
  onReview,
  wrong,
  said,
}: {
  review: Reviewed;
  onReview: (review: Reviewed) => void;
  wrong: (pointer: string) => string | undefined;
  said: (review: Reviewed) => string;
}) {
  return (
    <>
      <Stack direction="row" spacing={2}>
        <DateField
          label="From"
          value={review.date}
          onValue={(date) => date && onReview({ ...review, date })}
          wrong={wrong("/review/date")}
        />
        <TextField
          label="By %"
          type="number"
          value={review.byBp / 100}
          onChange={(e) => onReview({ ...review, byBp: Math.round(Number(e.target.value) * 100) })}
          sx={{ minWidth: 84, width: 84 }}
        />
        <WholeField
          label="Told, days before"
          value={review.noticeDays}
          onValue={(noticeDays) => onReview({ ...review, noticeDays })}
          wrong={wrong("/review/noticeDays")}
        />
      </Stack>
      <Box role="status" sx={{ fontSize: 14.5 }}>
        {said(review)}
      </Box>
    </>
  );
}
