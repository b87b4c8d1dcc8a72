"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { FormFrame } from "@/ui/form-frame";
import { Columns, MoneyField, WholeField } from "@/ui/form-parts";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useKeptForm } from "@/ui/use-kept-form";
import Box from "@mui/material/Box";
import FormControlLabel from "@mui/material/FormControlLabel";
import Skeleton from "@mui/material/Skeleton";
import Switch from "@mui/material/Switch";

type Setup = ViewOutput<"loyalty-setup">;

/** Points for what is paid, and what they take off; none unless the owner wants them. */
export function LoyaltyForm() {
  const { data } = useLive("loyalty-setup", {});
  return data ? <Form setup={data} /> : <Skeleton variant="rounded" height={280} />;
}

function Form({ setup }: { setup: Setup }) {
  const { currency, out } = setup;
  const { draft, set, wrong, round, frame } = useKeptForm({
    operation: "save-loyalty",
    of: "loyalty",
    from: {
      on: setup.perMinor !== null,
      perMinor: setup.perMinor ?? 100,
      worthMinor: setup.worthMinor,
      least: setup.least,
    },
    input: ({ on, perMinor, worthMinor, least }) => ({ perMinor: on ? perMinor : null, worthMinor, least }),
    name: () => "Loyalty",
    saved: () => {},
  });
  const amount = (minor: number) => moneyWords(minor, currency);
  const share = (100 * draft.worthMinor) / draft.perMinor;
  return (
    <FormFrame
      title="Loyalty"
      note="Points are given for what is paid, and taken back with a refund. Customers see them on their page and use them at their next booking, as a line of its own."
      key={round}
      {...frame}
    >
      <FormControlLabel
        control={<Switch checked={draft.on} onChange={(e) => set({ on: e.target.checked })} />}
        label={draft.on ? "Customers get points" : "There are no points"}
      />
      <Columns>
        <MoneyField
          currency={currency}
          label={`One point for each, ${currency}`}
          value={draft.perMinor}
          onValue={(perMinor) => set({ perMinor })}
          wrong={wrong("/perMinor")}
          disabled={!draft.on}
        />
        <MoneyField
          currency={currency}
          label={`One point takes off, ${currency}`}
          value={draft.worthMinor}
          onValue={(worthMinor) => set({ worthMinor })}
          wrong={wrong("/worthMinor")}
          disabled={!draft.on}
        />
        <WholeField
          label="Points at a time, at least"
          value={draft.least}
          onValue={(least) => set({ least })}
          wrong={wrong("/least")}
          disabled={!draft.on}
        />
      </Columns>
      {draft.on && Number.isFinite(share) && (
        <Box sx={{ color: ink.ash }} role="status">
          Whoever pays {amount(100 * draft.perMinor)} gets 100 points, which take off {amount(100 * draft.worthMinor)}:{" "}
          {Math.round(share * 10) / 10}% back.
        </Box>
      )}
      {out > 0 && (
        <Box sx={{ color: ink.ash }}>
          Customers have {out} points by now, worth {amount(out * setup.worthMinor)}. They keep them.
        </Box>
      )}
    </FormFrame>
  );
}
