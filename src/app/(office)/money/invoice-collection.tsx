"use client";
import { addDays } from "@/core/time/dates";
import { dateWords, dayWords } from "@/core/time/words";
import { DateField } from "@/ui/date-field";
import { Fact, SheetSection } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { useSnackbar } from "notistack";
import { useState } from "react";
import type { Invoice } from "./data";

/** How an open invoice comes in: by itself or not, on which day, and what its customer has promised. */
export function InvoiceCollection({ invoice, mayChange }: { invoice: Invoice; mayChange: boolean }) {
  const { collection, id: invoiceId } = invoice;
  const { enqueueSnackbar } = useSnackbar();
  const [doing, setDoing] = useState<"day" | "promise" | null>(null);
  const [day, setDay] = useState(addDays(invoice.today, 7));
  const set = useChange("set-collection", { then: () => setDoing(null) });
  const promise = useChange("record-promise", {
    then: () => {
      setDoing(null);
      enqueueSnackbar(`Nobody is reminded until ${dayWords(day)}`, { variant: "success" });
    },
  });
  const kept = collection.promise;
  return (
    <SheetSection title="How it comes in">
      {kept && kept.ended !== "changed" && (
        <Fact name="Promised">
          {dateWords(kept.day)}
          {kept.ended && `, ${kept.ended}`}
        </Fact>
      )}
      <Fact name="By itself">
        {collection.cards.length === 0
          ? "no: they have not agreed that a card is charged"
          : collection.never
            ? "no"
            : collection.notice
              ? collection.notice.objected
                ? "they objected"
                : `on ${dayWords(collection.notice.date)}; they were told`
              : collection.on
                ? `from ${dateWords(collection.on)} on`
                : "when it is due"}
      </Fact>
      {mayChange && (
        <Stack direction="row" sx={{ gap: 2, flexWrap: "wrap", mt: 2 }}>
          <Button size="small" variant="outlined" onClick={() => setDoing(doing === "promise" ? null : "promise")}>
            They promise a day…
          </Button>
          {collection.cards.length > 0 && (
            <>
              <Button
                size="small"
                disabled={set.busy}
                onClick={() =>
                  void set.send({ invoiceId, never: !collection.never, date: null, cardId: collection.cardId })
                }
              >
                {collection.never ? "Collect it by itself" : "Not by itself"}
              </Button>
              {!collection.never && (
                <Button size="small" onClick={() => setDoing(doing === "day" ? null : "day")}>
                  On another day…
                </Button>
              )}
            </>
          )}
        </Stack>
      )}
      {mayChange && collection.cards.length > 1 && !collection.never && (
        <TextField
          select
          size="small"
          label="From which card first"
          value={collection.cardId ?? ""}
          disabled={set.busy}
          onChange={(e) =>
            void set.send({ invoiceId, never: false, date: collection.on, cardId: Number(e.target.value) || null })
          }
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          sx={{ mt: 3, minWidth: 240 }}
        >
          <MenuItem value="">the first of theirs</MenuItem>
          {collection.cards.map(({ id, label }) => (
            <MenuItem key={id} value={id}>
              {label}
            </MenuItem>
          ))}
        </TextField>
      )}
      {doing && (
        <Box sx={{ display: "flex", gap: 2, mt: 3, alignItems: "flex-start" }}>
          <DateField
            label={doing === "promise" ? "They pay on" : "Collect it from"}
            width={190}
            value={day}
            onValue={(to) => to && setDay(to)}
            wrong={promise.wrong("/day") ?? set.wrong("/date")}
          />
          <Button
            variant="contained"
            disabled={promise.busy || set.busy}
            onClick={() =>
              void (doing === "promise"
                ? promise.send({ invoiceId, day })
                : set.send({ invoiceId, never: false, date: day, cardId: collection.cardId }))
            }
          >
            Save
          </Button>
        </Box>
      )}
    </SheetSection>
  );
}
