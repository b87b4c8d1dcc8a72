"use client";
import type { ViewInput } from "@/api/client";
import { PickerSkeleton, WindowPicker } from "@/ui/window-picker";
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useEffect, useRef, useState } from "react";
import { Ask } from "./ask";
import type { Business, Offer } from "./data";
import type { Chosen, Draft } from "./draft";
import { useOffers } from "./use-offers";

/** What a chosen time means, by where the work is done. */
const arrivals = {
  exact: {
    site: "We arrive at the time you choose.",
    ours: "We expect you at the time you choose.",
    afar: "We call you at the time you choose.",
  },
  within: {
    site: "We arrive within the time you choose.",
    ours: "Come to us within the time you choose.",
    afar: "We call you within the time you choose.",
  },
} as const;

interface WhenProps {
  asked: ViewInput<"offers">;
  draft: Draft;
  chosen: readonly Chosen[];
  business: Business;
  onChoose: (offer: Offer) => void;
  onType: (part: Partial<Draft>) => void;
}

/** Days side by side with their arches, soonest first; and a way on where none of them suits. */
export function When({ asked, draft, chosen, business, onChoose, onType }: WhenProps) {
  const asksFirst = chosen.some(({ service }) => service.asksFirst);
  const days = chosen[0]?.service.days ?? 1;
  const where = chosen[0]?.service.workPlace ?? "site";
  const { offers, problem, later } = useOffers(asksFirst ? null : asked);
  const [none, setNone] = useState(false);
  const wish = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (none) wish.current?.scrollIntoView({ block: "start" });
  }, [none]);
  if (asksFirst)
    return (
      <Ask
        draft={draft}
        business={business}
        onType={onType}
        words="We agree the time for this in person. Tell us what suits you, and we call or write to you."
      />
    );
  if (!offers) return problem ? <Alert severity="warning">{problem.sentence}</Alert> : <PickerSkeleton />;
  if (offers.length === 0)
    return (
      <Ask
        draft={draft}
        business={business}
        onType={onType}
        words={`Nothing is free in the next weeks. Tell us what would suit you, or call us on ${business.phone}: we will find a way.`}
        waits={business.takesWishes}
      />
    );
  return (
    <>
      <Typography color="textSecondary">
        {days > 1
          ? `The work takes ${days} days in a row; choose when it begins.`
          : offers.every((offer) => offer.from === offer.to)
            ? arrivals.exact[where]
            : arrivals.within[where]}{" "}
        Soonest first.
      </Typography>
      {problem && (
        <Alert severity="warning" role="alert" sx={{ mt: 3 }}>
          {problem.sentence}
        </Alert>
      )}
      <WindowPicker
        offers={offers}
        later={later}
        chosen={draft.offer}
        onOurWayBp={business.onOurWayBp}
        onChoose={onChoose}
      />
      {business.takesWishes && (
        <Button aria-expanded={none} onClick={() => setNone(!none)} sx={{ minHeight: 48, fontSize: 16 }}>
          None of these suits me
        </Button>
      )}
      <div ref={wish}>
        {none && (
          <Ask
            draft={draft}
            business={business}
            onType={onType}
            words="Tell us which days and times would suit you. When one opens we write to you, and you take it with one tap."
            waits
          />
        )}
      </div>
    </>
  );
}
