"use client";
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Typography from "@mui/material/Typography";
import { useEffect, useState } from "react";
import { moneyWords } from "@/core/money/amounts";
import { daysWords, durationWords, windowIn } from "@/core/time/words";
import { CardForm } from "@/ui/card-form";
import { ink } from "@/ui/palette";
import type { PricedOrder } from "@/core/catalogue/order";
import type { Coupon } from "@/core/catalogue/coupons";
import { CouponField } from "./coupon-field";
import { termsWords } from "@/core/catalogue/terms";
import type { BookableService, Draft } from "./draft";
import type { Business } from "./front-door";

export function Pay({ draft, order, service, payAll, onPayAll, onCoupon, business, wrong, onToken, onLapsed }: { draft: Draft; order: PricedOrder; service: BookableService; payAll: boolean; onPayAll: (all: boolean) => void; onCoupon: (coupon: Coupon | null) => void; business: Business; wrong: (pointer: string) => string | undefined; onToken: (token: string | null) => void; onLapsed: () => void }) {
  const amount = (minor: number) => moneyWords(minor, business.currency);
  const now = payAll ? order.totalMinor : order.depositMinor;
  const onQuote = service.priceKind === "quote";
  return (
    <Box>
      <Typography sx={{ mb: 3 }}>{daysWords([draft.offer!.date, ...draft.offer!.then])}, {windowIn(draft.offer!.from, draft.offer!.to, business.timeZone)}, at {draft.address!.line}.</Typography>
      {draft.hold && <HoldLeft until={draft.hold.until} minutes={business.holdMinutes} onLapsed={onLapsed} />}
      <Box sx={{ my: 4 }}>
        {order.lines.map((line, i) => <Row key={i} name={line.quantity === 1 ? line.description : `${line.description} × ${line.quantity}`} value={amount(line.amountMinor)} />)}
        <Row name={onQuote ? "This visit, tax included" : "Total, tax included"} value={amount(order.totalMinor)} strong />
        {now > 0 && <Row name={payAll ? "Now" : "Deposit, now"} value={amount(now)} />}
        {now > 0 && !payAll && <Row name="After the visit" value={amount(order.totalMinor - now)} />}
      </Box>
      {business.takesCoupons && <CouponField serviceId={service.id} coupon={draft.coupon} onCoupon={onCoupon} wrong={wrong("/coupon")} />}
      {onQuote && <Typography sx={{ mb: 3 }}>We look at it, and tell you the price of the work before anything is done. {business.quoteText}</Typography>}
      {service.mayPayAll && order.totalMinor > order.depositMinor && <FormControlLabel sx={{ mb: 3 }} control={<Checkbox checked={payAll} onChange={(e) => onPayAll(e.target.checked)} />} label={`Pay all of it now, ${amount(order.totalMinor)}`} />}
      <Box sx={{ color: ink.ash, mb: 4 }}>
        You can move it yourself until {durationWords(business.moveHours * 60)} before, and cancel until {durationWords(business.cancelHours * 60)} before. {termsWords(service.terms, amount).join(" ")}
        {business.terms && <Box component="details" sx={{ mt: 2 }}><summary>Our terms</summary><Box sx={{ whiteSpace: "pre-wrap", mt: 1 }}>{business.terms}</Box></Box>}
      </Box>
      {now > 0
        ? <CardForm onToken={onToken} wrong={wrong("/cardToken")} />
        : <Typography color="textSecondary">Nothing to pay now. You get the invoice after the visit.</Typography>}
    </Box>
  );
}

const Row = ({ name, value, strong }: { name: string; value: string; strong?: boolean }) => (
  <Box sx={{ display: "flex", justifyContent: "space-between", gap: 3, py: 1.5, borderTop: `1px solid ${ink.line}`, fontWeight: strong ? 700 : 400 }}><span>{name}</span><span>{value}</span></Box>
);

/** How long the window is still kept. The end is the server's; the demo's clock may differ, so only the span is trusted. */
function HoldLeft({ until, minutes, onLapsed }: { until: number; minutes: number; onLapsed: () => void }) {
  const [started] = useState(() => Number(sessionStorage.getItem(`hold ${until}`)) || Date.now());
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    sessionStorage.setItem(`hold ${until}`, String(started));
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, [until, started]);
  const left = Math.max(0, Math.round((started + minutes * 60_000 - now) / 1000));
  useEffect(() => {
    if (left === 0) onLapsed();
  }, [left, onLapsed]);
  return <Typography role="timer" sx={{ color: left < 60 ? ink.ember : ink.ash }}>Kept for you for {Math.floor(left / 60)}:{String(left % 60).padStart(2, "0")}</Typography>;
}
