"use client";
import { change, type ViewOutput } from "@/api/client";
import { beginAgain } from "@/app/book/use-draft";
import { moneyWords } from "@/core/money/amounts";
import { durationWords } from "@/core/time/words";
import { changesOf } from "@/core/catalogue/agreement";
import { AgreementWords } from "@/ui/agreement";
import { Changes } from "@/ui/changes";
import { DoorFact, DoorPage } from "@/ui/door-page";
import { TakeWindow } from "@/ui/take-window";
import { useChange } from "@/ui/use-change";
import { useView } from "@/ui/use-view";
import type { PickedWindow } from "@/ui/window-picker";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useRouter } from "next/navigation";
import { useEffect } from "react";

type View = ViewOutput<"offer">;
const big = { minHeight: 52, fontSize: 17 };

/** What an invitation shows: what we would do, what it costs, and the times that are still free, each to be taken with one press. */
export function OfferPage({ view, token }: { view: View; token: string }) {
  const { business } = view;
  const amount = (minor: number) => moneyWords(minor, business.currency);
  // Once, when it is really looked at: programs that only fetch the page do not count.
  useEffect(() => void change("open-offer", { token }), [token]);
  return (
    <DoorPage look={view.look} business={business}>
      <Box role="status">
        <Typography variant="h1">{view.booked ? "You are booked" : `${view.what}, this time too?`}</Typography>
      </Box>
      <Box sx={{ mt: 4 }}>
        <DoorFact name="What">
          {view.what}, about {durationWords(view.minutes)}
        </DoorFact>
        <DoorFact name="Where">{view.address}</DoorFact>
        {!view.booked && (
          <DoorFact name="Price">
            {amount(view.totalMinor)}, tax included
            {view.lines
              .filter(({ amountMinor }) => amountMinor < 0)
              .map(({ description, amountMinor }) => ` · ${description}: ${amount(amountMinor)}`)}
          </DoorFact>
        )}
        {!view.booked && <DoorFact name="Until">{view.until}</DoorFact>}
      </Box>
      {view.booked ? (
        <Button variant="contained" fullWidth href={`/my/${view.booked}`} sx={{ ...big, mt: 5 }}>
          See the visit
        </Button>
      ) : (
        <Times view={view} token={token} />
      )}
      <Typography color="textSecondary" sx={{ mt: 4 }}>
        Something else, or another place? <a href="/book">Book here</a>, or call{" "}
        <a href={`tel:${business.phone.replace(/[^\d+]/g, "")}`}>{business.phone}</a>.
      </Typography>
    </DoorPage>
  );
}

function Times({ view, token }: { view: View; token: string }) {
  const { data, problem, refresh } = useView("offer-windows", { token });
  const router = useRouter();
  const take = useChange("take-offer", { quiet: true });
  const changes = changesOf(take.problem);
  /** What is left to be answered or paid is asked at the front door, where what is offered is filled in. */
  const goOn = (window: PickedWindow) => {
    const { address, item, coupon } = view.begins;
    beginAgain({
      invite: token,
      coupon,
      address: address && {
        id: address.id,
        line: address.line,
        postcode: address.postcode,
        lng: address.lng,
        lat: address.lat,
      },
      items: [{ ...item, extras: [] }],
      offer: window,
    });
    location.assign("/book");
  };
  const book = async (window: PickedWindow) => {
    if (view.needsMore) {
      goOn(window);
      return true;
    }
    const { date, from, to } = window;
    const sent = await take.send({ token, window: { date, from, to }, read: view.agreement });
    if (sent) location.assign(sent.value.link ? `/my/${sent.value.link}?booked` : `/offer/${token}`);
    else {
      refresh();
      router.refresh();
    }
    return sent !== null;
  };
  return (
    <Box component="section" aria-label="Times" sx={{ mt: 5 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        When shall we come?
      </Typography>
      <TakeWindow
        offers={data}
        problem={problem}
        none="All our times until then are taken by now. Call us, and we look for another one."
        timeZone={view.business.timeZone}
        onOurWayBp={view.business.onOurWayBp}
        busy={take.busy}
        verb={view.needsMore ? "Continue with" : "Book"}
        onTake={book}
      />
      {!view.needsMore && <AgreementWords agreement={view.agreement} currency={view.business.currency} />}
      {changes.length > 0 && <Changes changes={changes} />}
      {take.problem && changes.length === 0 && (
        <Alert severity="warning" role="alert" sx={{ mt: 3, fontSize: 16 }}>
          {take.problem.sentence}
        </Alert>
      )}
    </Box>
  );
}
