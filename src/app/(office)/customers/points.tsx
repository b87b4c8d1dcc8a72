"use client";
import { moneyWords } from "@/core/money/amounts";
import { localDate } from "@/core/time/local";
import { dayShort } from "@/core/time/words";
import { SignedWholeField } from "@/ui/form-parts";
import { useLive } from "@/ui/live";
import { Fact, SheetSection } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { useOffice } from "../office-context";
import type { Customer } from "./data";
import { counted } from "@/core/words";

const names = {
  paid: "for a payment",
  refunded: "refunded",
  used: "used",
  "given back": "given back",
  "by hand": "",
} as const;
const fewest = 5;

/** A customer's loyalty points, how they came to them, and some given or taken by hand. Nothing where there are none. */
export function Points({ customer }: { customer: Customer }) {
  const { data } = useLive("customer-points", { customerId: customer.id });
  const mayGive = useOffice().person.permissions.includes("money.change") && !customer.erased;
  const [all, setAll] = useState(false);
  const [giving, setGiving] = useState(false);
  if (!data) return null;
  const rows = all ? data.rows : data.rows.slice(0, fewest);
  return (
    <SheetSection title={`${counted(data.balance, "point")}, worth ${moneyWords(data.worthMinor, customer.currency)}`}>
      {rows.map(({ id, kind, points, words, at, what }) => (
        <Fact key={id} name={dayShort(localDate(Math.floor(at / 60_000), customer.timeZone))}>
          {points > 0 ? `+${points}` : `−${-points}`} {[names[kind], what, words].filter(Boolean).join(", ")}
        </Fact>
      ))}
      <Box sx={{ display: "flex", gap: 2 }}>
        {data.rows.length > rows.length && (
          <Button size="small" onClick={() => setAll(true)}>
            All {data.rows.length}
          </Button>
        )}
        {mayGive && (
          <Button size="small" aria-expanded={giving} onClick={() => setGiving(!giving)}>
            Give or take…
          </Button>
        )}
      </Box>
      {giving && <Give customerId={customer.id} onGiven={() => setGiving(false)} />}
    </SheetSection>
  );
}

function Give({ customerId, onGiven }: { customerId: number; onGiven: () => void }) {
  const [points, setPoints] = useState(0);
  const [words, setWords] = useState("");
  const { send, busy, wrong } = useChange("give-points", { then: onGiven });
  return (
    <Box sx={{ display: "grid", gap: 2, mt: 2 }}>
      <SignedWholeField
        size="small"
        label="Points, with a minus to take"
        value={points}
        onValue={setPoints}
        wrong={wrong("/points")}
      />
      <TextField
        size="small"
        label="What for"
        value={words}
        onChange={(e) => setWords(e.target.value)}
        error={!!wrong("/words")}
        helperText={wrong("/words") ?? "They read it on their page"}
      />
      <Button
        variant="contained"
        disabled={busy}
        sx={{ justifySelf: "start" }}
        onClick={() => void send({ customerId, points, words })}
      >
        {points < 0 ? "Take them" : "Give them"}
      </Button>
    </Box>
  );
}
