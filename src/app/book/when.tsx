"use client";
import Alert from "@mui/material/Alert";
import Typography from "@mui/material/Typography";
import type { ViewInput } from "@/api/client";
import { useView } from "@/ui/use-view";
import { PickerSkeleton, WindowPicker } from "@/ui/window-picker";
import type { Offer } from "./draft";
import type { Business } from "./front-door";

/** Days side by side with their arches, soonest first. */
export function When({ asked, asksFirst, days, chosen, business, onChoose }: { asked: ViewInput<"offers">; asksFirst: boolean; days: number; chosen: Offer | null; business: Business; onChoose: (offer: Offer) => void }) {
  const { data: offers, problem } = useView("offers", asked);
  if (problem) return <Alert severity="warning">{problem.sentence}</Alert>;
  if (!offers) return <PickerSkeleton />;
  if (asksFirst) return <Typography>We agree the time for this in person. Call us on {business.phone} and say what suits you.</Typography>;
  if (offers.length === 0) return <Typography>Nothing is free in the next weeks. Call us on {business.phone}: we will find a way.</Typography>;
  return (
    <>
      <Typography color="textSecondary">{days > 1 ? `The work takes ${days} days in a row; choose when it begins.` : "We arrive within the time you choose."} Soonest first.</Typography>
      <WindowPicker offers={offers} chosen={chosen} timeZone={business.timeZone} onChoose={onChoose} />
    </>
  );
}
