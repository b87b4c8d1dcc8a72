"use client";
import { ask } from "@/api/client";
import type { Problem } from "@/core/problems";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { Draft } from "./draft";

type Address = NonNullable<Draft["address"]>;

/** For an address that the look-up does not know. */
export function TypedAddress({
  typed,
  onType,
  onAddress,
}: {
  typed: NonNullable<Draft["typed"]>;
  onType: (typed: NonNullable<Draft["typed"]>) => void;
  onAddress: (address: Address) => void;
}) {
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const find = async () => {
    setBusy(true);
    const result = await ask("type-address", typed);
    setBusy(false);
    setProblem(result.ok ? null : result.problem);
    if (result.ok) onAddress(result.value);
  };
  const wrong = (name: string) => problem?.fields?.[`/${name}`];
  return (
    <Box
      component="form"
      aria-label="Your address in full"
      onSubmit={(e) => {
        e.preventDefault();
        void find();
      }}
      sx={{ mt: 4, display: "grid", gap: 4 }}
    >
      <TextField
        label="House number, street and town"
        size="medium"
        autoComplete="street-address"
        value={typed.line}
        onChange={(e) => onType({ ...typed, line: e.target.value })}
        error={!!wrong("line")}
        helperText={wrong("line")}
      />
      <TextField
        label="Postcode"
        size="medium"
        autoComplete="postal-code"
        value={typed.postcode}
        onChange={(e) => onType({ ...typed, postcode: e.target.value })}
        error={!!wrong("postcode")}
        helperText={wrong("postcode")}
      />
      {problem && !problem.fields && <Alert severity="warning">{problem.sentence}</Alert>}
      <Button
        type="submit"
        variant="outlined"
        disabled={busy || !typed.line.trim() || !typed.postcode.trim()}
        sx={{ height: 52, fontSize: 17 }}
      >
        {busy ? "One moment…" : "Use this address"}
      </Button>
    </Box>
  );
}
