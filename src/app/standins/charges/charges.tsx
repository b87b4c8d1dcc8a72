"use client";
import { post } from "@/api/client";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";

const ways = [
  ["open", "Their bank asks it back"],
  ["won", "Decided for the business"],
  ["lost", "Decided for the customer"],
] as const;

/** What was charged, with what a customer's bank may do about it. */
export function Charges({ charges }: { charges: { reference: string; words: string }[] }) {
  const [said, setSaid] = useState("");
  const dispute = async (charge: string, state: string, words: string) => {
    const result = await post("/standins/charges/dispute", { charge, state });
    setSaid(result.ok ? `${words}: told` : "That did not work.");
  };
  return (
    <Box component="main" sx={{ maxWidth: 760, mx: "auto", p: 6 }}>
      <Typography variant="h1">Charges</Typography>
      <Box role="status" sx={{ minHeight: 28, mt: 2 }}>
        {said}
      </Box>
      {charges.map(({ reference, words }) => (
        <Box key={reference} role="group" aria-label={reference} sx={{ py: 3, borderTop: `1px solid ${ink.line}` }}>
          {words} <span style={{ color: ink.ash }}>{reference}</span>
          <Box sx={{ display: "flex", gap: 2, mt: 1, flexWrap: "wrap" }}>
            {ways.map(([state, name]) => (
              <Button key={state} size="small" variant="outlined" onClick={() => void dispute(reference, state, name)}>
                {name}
              </Button>
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
