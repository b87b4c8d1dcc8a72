"use client";
import { mayPayAll, paidNow } from "@/core/catalogue/baskets";
import type { PricedOrder } from "@/core/catalogue/order";
import type { Agreement } from "@/core/catalogue/agreement";
import { moneyWords } from "@/core/money/amounts";
import { everyWords } from "@/core/repeats/rule";
import { daysWords } from "@/core/time/words";
import { AgreementWords } from "@/ui/agreement";
import { CardForm } from "@/ui/card-form";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Typography from "@mui/material/Typography";
import { CouponField } from "./coupon-field";
import type { Business } from "./data";
import type { Chosen, Draft } from "./draft";

interface PayProps {
  draft: Draft;
  chosen: readonly Chosen[];
  order: PricedOrder;
  /** Loyalty points that it can be paid with, and what they take off. */
  points: { used: number; worthMinor: number } | null;
  payAll: boolean;
  /** What is agreed to by the last button. */
  agreement: Agreement;
  business: Business;
  wrong: (pointer: string) => string | undefined;
  onType: (part: Partial<Draft>) => void;
  onToken: (token: string | null) => void;
}

/** The whole of it once more: when, where, what it costs, what is paid now, and the rules in plain words. */
export function Pay({ draft, chosen, order, points, payAll, agreement, business, wrong, onType, onToken }: PayProps) {
  const amount = (minor: number) => moneyWords(minor, business.currency);
  const now = paidNow(order, payAll);
  const later = order.totalMinor - now;
  const onQuote = chosen.some(({ service }) => service.priceKind === "quote");
  return (
    <Box>
      <Typography sx={{ mb: 3 }}>
        {daysWords([draft.offer!.date, ...draft.offer!.followingDays])}, {draft.offer!.words}, at {draft.address!.line}
        {draft.repeat && `; then ${everyWords(draft.repeat)}`}.
      </Typography>
      <Box sx={{ my: 4 }}>
        {order.lines.map((line, i) => (
          <Row
            key={i}
            name={line.quantity === 1 ? line.description : `${line.description} × ${line.quantity}`}
            value={amount(line.amountMinor)}
          />
        ))}
        <Row
          name={onQuote ? "This visit, tax included" : "Total, tax included"}
          value={amount(order.totalMinor)}
          strong
        />
        {now > 0 && <Row name={payAll ? "Now" : "Deposit, now"} value={amount(now)} />}
        {now > 0 && later > 0 && <Row name={draft.atDoor ? "At the door" : "After the visit"} value={amount(later)} />}
      </Box>
      {business.takesCoupons && (
        <CouponField
          serviceIds={chosen.map((item) => item.serviceId)}
          coupon={draft.coupon}
          onCoupon={(coupon) => onType({ coupon })}
          wrong={wrong("/coupon")}
        />
      )}
      {points && (
        <Tick
          checked={draft.usePoints}
          onTick={(usePoints) => onType({ usePoints })}
          words={`Use ${points.used} of my points: ${amount(points.worthMinor)} less`}
        />
      )}
      {onQuote && (
        <Typography sx={{ mb: 3 }}>
          We look at it, and tell you the price of the work before anything is done. {business.quoteText}
        </Typography>
      )}
      {mayPayAll(chosen) && order.totalMinor > order.depositMinor && (
        <Tick
          checked={payAll}
          onTick={(all) => onType({ payAll: all })}
          words={`Pay all of it now, ${amount(order.totalMinor)}`}
        />
      )}
      {business.paysAtDoor && later > 0 && (
        <Tick
          checked={draft.atDoor}
          onTick={(atDoor) => onType({ atDoor })}
          words={`I pay ${now > 0 ? "the rest " : ""}at the door, in cash or by card`}
        />
      )}
      <AgreementWords agreement={agreement} currency={business.currency} />
      {now > 0 ? (
        <>
          <CardForm onToken={onToken} wrong={wrong("/cardToken")} />
          <Tick
            checked={draft.keepCard}
            onTick={(keepCard) => onType({ keepCard })}
            words={business.consents["card on file"]}
          />
        </>
      ) : (
        <Typography color="textSecondary">
          {draft.atDoor
            ? "Nothing to pay now. You pay when we are there."
            : "Nothing to pay now. You get the invoice after the visit."}
        </Typography>
      )}
    </Box>
  );
}

const Tick = ({ checked, onTick, words }: { checked: boolean; onTick: (on: boolean) => void; words: string }) => (
  <FormControlLabel
    sx={{ display: "flex", my: 1 }}
    control={<Checkbox checked={checked} onChange={(e) => onTick(e.target.checked)} />}
    label={words}
  />
);

const Row = ({ name, value, strong }: { name: string; value: string; strong?: boolean }) => (
  <Box
    sx={{
      display: "flex",
      justifyContent: "space-between",
      gap: 3,
      py: 1.5,
      borderTop: `1px solid ${ink.line}`,
      fontWeight: strong ? 700 : 400,
    }}
  >
    <span>{name}</span>
    <span>{value}</span>
  </Box>
);
