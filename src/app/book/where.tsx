"use client";
import { moneyWords } from "@/core/money/amounts";
import type { Problem } from "@/core/problems";
import { clock, durationWords, weekdaysWords } from "@/core/time/words";
import { AddressField } from "@/ui/address-field";
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import dynamic from "next/dynamic";
import type { Business, ServicesAt } from "./data";
import type { Draft } from "./draft";
import { counted } from "@/core/words";

type Address = NonNullable<Draft["address"]>;

// Few need these.
const Ask = dynamic(() => import("./ask").then((m) => m.Ask));
const TypedAddress = dynamic(() => import("@/ui/typed-address").then((m) => m.TypedAddress));

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
      {!draft.address && draft.typed && (
        <TypedAddress typed={draft.typed} onType={(typed) => onType({ typed })} onAddress={onAddress} />
      )}
      {!draft.address && !draft.typed && (
        <Button
          onClick={() => onType({ typed: { line: "", postcode: "" } })}
          sx={{ mt: 2, minHeight: 48, fontSize: 16 }}
        >
          My address is not in the list
        </Button>
      )}
      {problem && (
        <Alert severity="warning" sx={{ mt: 4 }}>
          {problem.sentence}
        </Alert>
      )}
      {at && !at.zone && at.services.length > 0 && (
        <Alert severity="info" sx={{ mt: 4, fontSize: 16 }}>
          What is done at our place or by phone can be booked from everywhere: go on below.
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

function ZoneRules({ zone, business }: { zone: NonNullable<ServicesAt["zone"]>; business: Business }) {
  const rules = [
    zone.weekdays === 127 ? "" : `We come to ${zone.name} on ${weekdaysWords(zone.weekdays)}.`,
    zone.serveTo <= 14 * 60 ? `We come there between ${clock(zone.serveFrom)} and ${clock(zone.serveTo)}.` : "",
    zone.surchargeMinor ? `A surcharge of ${moneyWords(zone.surchargeMinor, business.currency)} is added.` : "",
    zone.smallestOrderMinor
      ? `The smallest order there is ${moneyWords(zone.smallestOrderMinor, business.currency)}.`
      : "",
    zone.noticeMinutes
      ? `Book at least ${zone.noticeMinutes % 1440 === 0 ? counted(zone.noticeMinutes / 1440, "day") : durationWords(zone.noticeMinutes)} ahead.`
      : "",
  ].filter(Boolean);
  return (
    <Alert severity="success" icon={false} sx={{ mt: 4, fontSize: 16 }}>
      <b>We come to {zone.name}.</b> {rules.join(" ")}
    </Alert>
  );
}
