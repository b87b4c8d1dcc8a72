"use client";
import type { ViewOutput } from "@/api/client";
import { beginAgain } from "@/app/book/use-draft";
import { moneyWords } from "@/core/money/amounts";
import { localDate } from "@/core/time/local";
import { windowIn } from "@/core/time/local-words";
import { ownPage } from "@/core/visits/own-page";
import { dateWords, dayShort, daysWords, dayWords } from "@/core/time/words";
import { stateGlyphs } from "@/ui/arch";
import { AmountRow, DoorFact, DoorPage, PromiseArch } from "@/ui/door-page";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useFresh } from "@/ui/use-fresh";
import Alert from "@mui/material/Alert";
import { channelNames, channels } from "@/core/messages/purposes";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import LinearProgress from "@mui/material/LinearProgress";
import Typography from "@mui/material/Typography";
import dynamic from "next/dynamic";
import { useEffect, useState } from "react";
import { EnterCode } from "./enter-code";
import { ComeAgain, OwnChanges } from "./own-changes";
import { DueChoices } from "@/ui/due-choices";
import { imageAddress } from "@/ui/images";
import { PayNow } from "./pay-now";
import { YourCards } from "./your-cards";
import { YourPoints } from "./your-points";

/** With its pickers of days and windows; it comes when somebody wants to change something. */
const OwnDates = dynamic(() => import("./own-dates").then((m) => m.OwnDates));

type View = ViewOutput<"my-visit">;

/** What a customer's link shows: the promise, the price, what is to be paid. */
export function MyVisit({ view: initial, token, justBooked }: { view: View; token: string; justBooked: boolean }) {
  const [view, refresh] = useFresh(initial, "my-visit", {}, token);
  const { business, job, visit, invoice, payments } = view;
  const amount = (minor: number) => moneyWords(minor, business.currency);
  const page = ownPage({
    job,
    visit: visit.state,
    payments,
    depositMinor: job.deposit_minor,
    openMinor: invoice && !invoice.isShared ? invoice.openMinor : 0,
    takesCards: view.takesCards,
  });
  const { asking, dueMinor: due, asksForCode } = page;
  const step = payments[page.step];
  const declined = page.declined ? payments.at(-1) : undefined;
  const another = useChange("take-another-card", { then: refresh });

  // While a charge is under way, or the day is today, the page looks again by itself.
  useEffect(() => {
    // Somebody else reads this page: nothing of it changes by them.
    if (!token) return;
    const timer = setInterval(refresh, asking ? 700 : 20_000);
    return () => clearInterval(timer);
  }, [refresh, asking, token]);

  return (
    <DoorPage look={view.done.look} business={business}>
      <Box role="status">
        <Typography variant="h1">{page.title}</Typography>
      </Box>
      {asksForCode && <EnterCode mail={job.mail} token={token} onRight={refresh} sent />}
      {justBooked && view.done.words && page.isBooked && (
        <Typography sx={{ mt: 3, whiteSpace: "pre-wrap" }}>{view.done.words}</Typography>
      )}
      {page.isUnpaid && (
        <Typography sx={{ mt: 3 }}>
          The deposit was not paid, and the window has been given back. Nothing was charged; what your bank may have
          taken all the same goes back to your card.
        </Typography>
      )}
      {asking && <LinearProgress sx={{ mt: 3 }} aria-label="Asking the bank" />}
      {page.kept !== null && (
        <PromiseArch time={windowIn(visit.window_from, visit.window_to, business.timeZone)} day={dayWords(visit.date)}>
          <Box sx={{ color: ink.ash, mt: 2 }}>
            {stateGlyphs[visit.state]} {page.kept}
          </Box>
          {view.technicians.length > 0 && ["on the way", "on site"].includes(visit.state) && (
            <Box sx={{ color: ink.ash, display: "grid", justifyItems: "center", gap: 1, mt: 2 }}>
              {view.technicians.map(
                ({ name, photo }) =>
                  photo && (
                    <Box
                      key={name}
                      component="img"
                      src={imageAddress(photo)}
                      alt={name}
                      sx={{ width: 72, height: 72, borderRadius: "36px", objectFit: "cover" }}
                    />
                  ),
              )}
              {view.technicians.map(({ name }) => name).join(" and ")}
            </Box>
          )}
        </PromiseArch>
      )}
      <DoorFact name="What">{job.service}</DoorFact>
      {view.days.length > 1 && <DoorFact name="Days">{daysWords(view.days)}</DoorFact>}
      <DoorFact name="Where">{view.where}</DoorFact>
      {view.repeat && <ComesBack view={view} token={token} onChanged={refresh} />}
      {view.repeat?.active && view.coming.length > 0 && (
        <DoorFact name="Then">
          {view.coming
            .map(
              ({ date, window }) =>
                `${dayShort(date)}${date.slice(0, 4) === visit.date.slice(0, 4) ? "" : ` ${date.slice(0, 4)}`}${window ? `, ${window}` : ""}`,
            )
            .join("; ")}
          {view.coming.some(({ window }) => window === null) && ". We tell you the time before each."}
        </DoorFact>
      )}

      <Typography variant="h2" sx={{ mt: 7, mb: 2 }}>
        {invoice ? `Invoice ${invoice.number}` : "Price"}
      </Typography>
      {view.fee ? (
        <AmountRow name={`${view.fee.description}, tax included`} value={amount(view.fee.amount_minor)} strong />
      ) : (
        <>
          {view.lines.map((line, i) => (
            <AmountRow
              key={i}
              name={line.quantity === 1 ? line.description : `${line.description} × ${line.quantity}`}
              value={amount(line.amount_minor)}
            />
          ))}
          <AmountRow name="Total, tax included" value={amount(job.total_minor)} strong />
        </>
      )}
      {payments
        .filter((p) => p.state === "received")
        .map((p) => (
          <AmountRow
            key={p.id}
            name={`Paid${p.purpose === "deposit" ? ", deposit" : ""}, ${dayShort(localDate(Math.floor(p.settled_at! / 60_000), business.timeZone))}`}
            value={`−${amount(p.amount_minor)}`}
          />
        ))}
      {view.refunds.map((r) => (
        <AmountRow
          key={`refund ${r.id}`}
          name={`${r.state === "asked" ? "Going back to your card" : "Paid back"}, ${dayShort(localDate(Math.floor(r.asked_at / 60_000), business.timeZone))}`}
          value={amount(r.amount_minor)}
        />
      ))}
      {invoice && (
        <AmountRow
          name={invoice.openMinor ? `Open, due ${dateWords(invoice.dueDate)}` : "Paid in full"}
          value={amount(invoice.openMinor)}
          strong
        />
      )}
      {invoice?.token && (
        <Button size="small" href={`/invoice/${invoice.token}`} sx={{ mt: 1 }}>
          {invoice.isShared ? "The invoice, with other work on it" : "The invoice, with PDF"}
        </Button>
      )}
      {invoice && business.invoiceText && (
        <Typography color="textSecondary" sx={{ mt: 2, whiteSpace: "pre-wrap" }}>
          {business.invoiceText}
        </Typography>
      )}
      {!invoice && job.state === "agreed" && (
        <AmountRow
          name="After the visit"
          value={amount(
            job.total_minor - payments.reduce((sum, p) => sum + (p.state === "received" ? p.amount_minor : 0), 0),
          )}
        />
      )}

      {declined && (
        <Alert severity="warning" role="alert" sx={{ mt: 4, fontSize: 16 }}>
          {declined.problem && `${declined.problem}. `}Nothing was charged. Try another card
          {page.pays === "deposit" && "; your window is kept meanwhile"}.
        </Alert>
      )}
      {step && (
        <>
          <Button
            variant="contained"
            fullWidth
            sx={{ mt: 5, minHeight: 52, fontSize: 17 }}
            href={`${step.step_address}?back=${encodeURIComponent(`/my/${token}`)}`}
          >
            Go to your bank
          </Button>
          <Button
            fullWidth
            sx={{ mt: 2, minHeight: 48 }}
            disabled={!token || another.busy}
            onClick={() => void another.send({}, token)}
          >
            Pay with another card
          </Button>
        </>
      )}
      {page.pays && (
        <PayNow
          purpose={page.pays}
          words={`Pay ${amount(due)}`}
          kept={declined ? [] : view.cards}
          keepWords={view.cardWords}
          token={token}
          tips={view.tips && page.pays === "invoice" ? business.currency : null}
          onAsked={refresh}
        />
      )}
      {view.takesCards && (view.cards.length > 0 || view.offersCollection) && (
        <YourCards view={view} token={token} onChanged={refresh} />
      )}
      {invoice?.token && invoice.openMinor > 0 && !asking && (
        <DueChoices
          token={invoice.token}
          coming={invoice.coming}
          currency={business.currency}
          today={view.today}
          onChanged={refresh}
        />
      )}
      <ComeAgain view={view} token={token} refresh={refresh} />
      <OwnChanges view={view} token={token} justBooked={justBooked} refresh={refresh} />
      {token && <YourPoints token={token} currency={business.currency} timeZone={business.timeZone} />}
      <Consents view={view} token={token} onChanged={refresh} />
      {(job.proof === "none" || job.proof === "paid") && (
        <EnterCode mail={job.mail} token={token} onRight={refresh} sent={false} />
      )}
      <Button
        variant="outlined"
        href="/book"
        onClick={() => beginAgain({ ...view.again, by: token || null })}
        sx={{ mt: 5, minHeight: 52, fontSize: 17, "@media print": { display: "none" } }}
      >
        {visit.state === "cancelled" || visit.state === "done" ? "Book again" : "Book something else"}
      </Button>
      <Typography color="textSecondary" sx={{ mt: 6 }}>
        {(view.done.showsContact || !view.changes) && (
          <>
            Anything to say? <a href={`tel:${business.phone.replace(/[^\d+]/g, "")}`}>{business.phone}</a>
            {view.done.showsContact && (
              <>
                {" "}
                or <a href={`mailto:${business.mail}`}>{business.mail}</a>
              </>
            )}
            .{" "}
          </>
        )}
        Keep this page’s address: it is your key to this visit.
      </Typography>
    </DoorPage>
  );
}

/** How it comes back, and how that is ended; a slip is taken back with the same button. */
function ComesBack({ view, token, onChanged }: { view: View; token: string; onChanged: () => void }) {
  const { send, busy } = useChange("repeat-by-link", { then: onChanged });
  const { words, active } = view.repeat!;
  const [open, setOpen] = useState(false);
  const turn = () => void send({ goesOn: !active }, token);
  return (
    <>
      <DoorFact name="Again">
        {active ? `We come ${words}. ` : "We do not come by ourselves any more. "}
        {active && (
          <Button size="small" aria-expanded={open} onClick={() => setOpen(!open)}>
            Change dates
          </Button>
        )}
        <Button size="small" disabled={busy} onClick={turn}>
          {active ? "End it" : "Take it up again"}
        </Button>
      </DoorFact>
      {active && open && <OwnDates token={token} timeZone={view.business.timeZone} />}
    </>
  );
}

/** What we may write, agreed to and taken back by the same tick. */
function Consents({ view, token, onChanged }: { view: View; token: string; onChanged: () => void }) {
  const { send, busy } = useChange("consent-by-link", { then: onChanged });
  const byChannel = useChange("withhold-by-link", { then: onChanged });
  return (
    <Box role="group" aria-label="What we may write to you" sx={{ mt: 6, "@media print": { display: "none" } }}>
      {view.consents.map(({ kind, words, given }) => (
        <FormControlLabel
          key={kind}
          control={
            <Checkbox
              checked={given}
              disabled={busy}
              onChange={(e) => void send({ kind, given: e.target.checked }, token)}
            />
          }
          label={words}
        />
      ))}
      {view.consents
        .filter(({ given }) => given)
        .map(({ kind, withheld }) => (
          <Box key={kind} role="group" aria-label={`${kind} by`} sx={{ pl: 4 }}>
            {kind === "reminders" ? "Reminders by" : "Offers by"}{" "}
            {channels.map((channel) => (
              <FormControlLabel
                key={channel}
                control={
                  <Checkbox
                    size="small"
                    checked={!withheld.includes(channel)}
                    disabled={byChannel.busy}
                    onChange={(e) => void byChannel.send({ purpose: kind, channel, wanted: e.target.checked }, token)}
                  />
                }
                label={channelNames[channel]}
              />
            ))}
          </Box>
        ))}
    </Box>
  );
}
