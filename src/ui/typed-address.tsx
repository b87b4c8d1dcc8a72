"use client";
import { ask } from "@/api/client";
import type { Problem } from "@/core/problems";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { FoundAddress } from "./address-field";

export interface Typed {
  line: string;
  postcode: string;
}

/** For an address that the look-up does not know. It may stand within a form. */
export function TypedAddress({
  typed,
  onType,
  onAddress,
  label = "Your address in full",
  size = "medium",
}: {
  typed: Typed;
  onType: (typed: Typed) => void;
  onAddress: (address: FoundAddress) => void;
  label?: string;
  size?: "small" | "medium";
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
      role="group"
      aria-label={label}
      onKeyDown={(e) => {
        if (e.key !== "Enter") return;
        e.preventDefault();
        void find();
      }}
      sx={{ mt: 4, display: "grid", gap: 4 }}
    >
      <TextField
        label="House number, street and town"
        size={size}
        autoComplete="street-address"
        value={typed.line}
        onChange={(e) => onType({ ...typed, line: e.target.value })}
        error={!!wrong("line")}
        helperText={wrong("line")}
      />
      <TextField
        label="Postcode"
        size={size}
        autoComplete="postal-code"
        value={typed.postcode}
        onChange={(e) => onType({ ...typed, postcode: e.target.value })}
        error={!!wrong("postcode")}
        helperText={wrong("postcode")}
      />
      {problem && !problem.fields && <Alert severity="warning">{problem.sentence}</Alert>}
      <Button
        variant="outlined"
        onClick={() => void find()}
        disabled={busy || !typed.line.trim() || !typed.postcode.trim()}
        sx={size === "medium" ? { height: 52, fontSize: 17 } : { justifySelf: "start" }}
      >
        {busy ? "One moment…" : "Use this address"}
      </Button>
    </Box>
  );
}
