"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { ask } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import type { Problem } from "@/core/problems";
import { durationWords, weekdaysWords, windowWords } from "@/core/time/words";
import { AddressField } from "@/ui/address-field";
import type { Draft, ServicesAt } from "./draft";
import { Ask } from "./ask";
import type { Business } from "./front-door";

type Address = NonNullable<Draft["address"]>;

export function Where({
  draft,
  at,
  problem,
  business,
  onAddress,
  onType,
}: {
  draft: Draft;
  at: ServicesAt | null;
  problem: Problem | null;
  business: Business;
  onAddress: (address: Address | null) => void;
  onType: (part: Partial<Draft>) => void;
}) {
  return (
    <>
      <Typography color="textSecondary" sx={{ mb: 4 }}>
        House number and street, or the postcode.
      </Typography>
      <AddressField
        label="Address"
        size="medium"
        value={draft.address}
        onValue={onAddress}
        nothing="No address begins like this. Check the spelling, or type it in full below."
      />
      {!draft.address && (
        <TypedAddress typed={draft.typed} onType={(typed) => onType({ typed })} onAddress={onAddress} />
      )}
      {problem && (
        <Alert severity="warning" sx={{ mt: 4 }}>
          {problem.sentence}
        </Alert>
      )}
      {at &&
        !at.zone &&
        (business.takesRequests ? (
          <Ask
            draft={{ ...draft, items: [] }}
            business={business}
            onType={onType}
            words="This address is outside the places we usually go to. Tell us what you need: if we can come, we call you."
          />
        ) : (
          <Alert severity="info" sx={{ mt: 4, fontSize: 16 }}>
            This address is not in our zones yet. Call us on {business.phone}: sometimes we can still come.
          </Alert>
        ))}
      {at?.zone && <ZoneRules zone={at.zone} business={business} />}
    </>
  );
}

/** For an address that the look-up does not know. */
function TypedAddress({
  typed,
  onType,
  onAddress,
}: {
  typed: Draft["typed"];
  onType: (typed: Draft["typed"]) => void;
  onAddress: (address: Address) => void;
}) {
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  if (!typed)
    return (
      <Button onClick={() => onType({ line: "", postcode: "" })} sx={{ mt: 2, height: 48, fontSize: 16 }}>
        My address is not in the list
      </Button>
    );
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
      onSubmit={(e) => (e.preventDefault(), void find())}
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

function ZoneRules({ zone, business }: { zone: NonNullable<ServicesAt["zone"]>; business: Business }) {
  const rules = [
    zone.weekdays === 127 ? "" : `We come to ${zone.name} on ${weekdaysWords(zone.weekdays)}.`,
    zone.serveTo <= 14 * 60 ? `Only ${windowWords(zone.serveFrom, zone.serveTo)} o’clock.` : "",
    zone.surchargeMinor ? `A surcharge of ${moneyWords(zone.surchargeMinor, business.currency)} is added.` : "",
    zone.smallestOrderMinor
      ? `The smallest order there is ${moneyWords(zone.smallestOrderMinor, business.currency)}.`
      : "",
    zone.noticeMinutes
      ? `Book at least ${zone.noticeMinutes % 1440 === 0 ? `${zone.noticeMinutes / 1440} days` : durationWords(zone.noticeMinutes)} ahead.`
      : "",
  ].filter(Boolean);
  return (
    <Alert severity="success" icon={false} sx={{ mt: 4, fontSize: 16 }}>
      <b>We come to {zone.name}.</b> {rules.join(" ")}
    </Alert>
  );
}
