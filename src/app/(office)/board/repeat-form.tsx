"use client";
import type { Counted } from "@/core/repeats/counted";
import type { Comes } from "@/core/repeats/flexible";
import { ComesField, CountedField } from "../repeats/term-fields";
import { ruleText } from "@/core/repeats/recurrence";
import { ruleFrom } from "@/core/repeats/rule";
import { recurrenceWords } from "@/core/repeats/rule-words";
import { readOrSay, RuleEditor } from "@/ui/rule-editor";
import { useChange } from "@/ui/use-change";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import { useSnackbar } from "notistack";
import { useState } from "react";
import type { VisitDetails } from "./data";

/** Makes a visit come back, by a rule that begins on its day. */
export function RepeatForm({ visit }: { visit: VisitDetails }) {
  const [text, setText] = useState(() => ruleText(ruleFrom({ every: 4, unit: "week" }, visit.date)));
  const { send, busy, wrong } = useChange("make-repeat");
  const { enqueueSnackbar } = useSnackbar();
  const [comes, setComes] = useState<Comes>(visit.comesBack);
  const [counted, setCounted] = useState<Counted>("calendar");
  const { rule } = readOrSay(text);

  const make = async () => {
    const made = await send({ visitId: visit.id, rule: text, comes, counted });
    if (!made || !rule) return;
    enqueueSnackbar(`It repeats ${recurrenceWords(rule, visit.date)}; ${made.value.forecasts} dates lie ahead`, {
      variant: "success",
    });
  };
  return (
    <Stack spacing={3}>
      <RuleEditor text={text} start={visit.date} wrong={wrong("/rule")} onText={setText} />
      <ComesField value={comes} onValue={setComes} />
      <CountedField rule={rule} value={counted} onValue={setCounted} />
      <Button variant="outlined" disabled={busy || !rule} onClick={() => void make()} sx={{ alignSelf: "flex-start" }}>
        Repeat
      </Button>
    </Stack>
  );
}
