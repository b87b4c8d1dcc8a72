"use client";
import Alert from "@mui/material/Alert";
import Autocomplete from "@mui/material/Autocomplete";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useEffect, useState } from "react";
import { ask } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import type { Problem } from "@/core/problems";
import { durationWords, weekdaysWords, windowWords } from "@/core/time/words";
import type { Draft, ServicesAt } from "./draft";
import type { Business } from "./front-door";

type Address = NonNullable<Draft["address"]>;

export function Where({ draft, at, problem, business, onAddress }: { draft: Draft; at: ServicesAt | null; problem: Problem | null; business: Business; onAddress: (address: Address | null) => void }) {
  const [text, setText] = useState("");
  const [found, setFound] = useState<Address[]>([]);
  const [asked, setAsked] = useState(false);

  useEffect(() => {
    if (text.trim().length < 2) return setFound([]);
    let current = true;
    void ask("find-address", { text }).then((result) => {
      if (!current) return;
      setFound(result.ok ? result.value : []);
      setAsked(true);
    });
    return () => void (current = false);
  }, [text]);

  return (
    <>
      <Typography color="textSecondary" sx={{ mb: 4 }}>House number and street, or the postcode.</Typography>
      <Autocomplete
        options={found}
        value={draft.address}
        filterOptions={(options) => options}
        getOptionLabel={(a) => `${a.line}, ${a.postcode}`}
        getOptionKey={(a) => a.id}
        isOptionEqualToValue={(a, b) => a.id === b.id}
        onInputChange={(_, value, reason) => reason === "input" && setText(value)}
        onChange={(_, address) => onAddress(address)}
        noOptionsText={text.trim().length < 2 ? "Type the beginning of your street" : asked ? "No address begins like this. Check the spelling, or call us." : "Looking…"}
        renderInput={(params) => <TextField {...params} label="Address" size="medium" />}
      />
      {problem && <Alert severity="warning" sx={{ mt: 4 }}>{problem.sentence}</Alert>}
      {at && !at.zone && <Alert severity="info" sx={{ mt: 4, fontSize: 16 }}>This address is not in our zones yet. Call us on {business.phone}: sometimes we can still come.</Alert>}
      {at?.zone && <ZoneRules zone={at.zone} business={business} />}
    </>
  );
}

function ZoneRules({ zone, business }: { zone: NonNullable<ServicesAt["zone"]>; business: Business }) {
  const rules = [
    zone.weekdays === 127 ? "" : `We come to ${zone.name} on ${weekdaysWords(zone.weekdays)}.`,
    zone.serveTo <= 14 * 60 ? `Only ${windowWords(zone.serveFrom, zone.serveTo)} o’clock.` : "",
    zone.surchargeMinor ? `A surcharge of ${moneyWords(zone.surchargeMinor, business.currency)} is added.` : "",
    zone.smallestOrderMinor ? `The smallest order there is ${moneyWords(zone.smallestOrderMinor, business.currency)}.` : "",
    zone.noticeMinutes ? `Book at least ${zone.noticeMinutes % 1440 === 0 ? `${zone.noticeMinutes / 1440} days` : durationWords(zone.noticeMinutes)} ahead.` : "",
  ].filter(Boolean);
  return <Alert severity="success" icon={false} sx={{ mt: 4, fontSize: 16 }}><b>We come to {zone.name}.</b> {rules.join(" ")}</Alert>;
}
