"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { netOf, paperTitle, taxesOf } from "@/core/money/papers";
import { dateWords } from "@/core/time/words";
import { BankStep } from "@/ui/bank-step";
import { CardForm } from "@/ui/card-form";
import { AmountRow, DoorFact, DoorPage } from "@/ui/door-page";
import { DueChoices } from "@/ui/due-choices";
import { PartsField } from "@/ui/parts-field";
import { TipField } from "@/ui/tip-field";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";

type View = ViewOutput<"my-invoice">;

const hidden = { "@media print": { display: "none" } };

/** What an invoice's link opens: what it asks, what is open, and a card to pay it. */
export function InvoicePage({
  view,
  coming,
  token,
}: {
  view: View;
  coming: ViewOutput<"invoice-coming">;
  token: string;
}) {
  const { paper } = view;
  const router = useRouter();
  const amount = (minor: number) => moneyWords(minor, paper.currency);
  const call = <a href={`tel:${view.phone.replace(/[^\d+]/g, "")}`}>{view.phone}</a>;
  return (
    <DoorPage look={view.look} business={paper.seller}>
      <Typography variant="h1">{paperTitle(paper)}</Typography>
      <Box role="status" sx={{ fontSize: 19, mt: 2 }}>
        {paper.openMinor > 0 ? (
          <>
            <b>{amount(view.dueMinor)}</b> to pay, due on {dateWords(view.parts[0]?.due ?? paper.due!)}
          </>
        ) : (
          "Nothing is open: thank you."
        )}
      </Box>
      {paper.before && <Typography sx={{ mt: 4, whiteSpace: "pre-wrap" }}>{paper.before}</Typography>}
      <Box sx={{ mt: 5 }}>
        <DoorFact name="For">{[paper.buyer.name, ...paper.buyer.address].join(", ")}</DoorFact>
        <DoorFact name="Date">{dateWords(paper.issued)}</DoorFact>
        {paper.place && <DoorFact name="Where">{paper.place}</DoorFact>}
      </Box>
      <Typography variant="h2" sx={{ mt: 6, mb: 2 }}>
        What for
      </Typography>
      {paper.lines.map((line, i) => (
        <AmountRow
          key={i}
          name={[
            line.quantity === 1 ? line.description : `${line.description} × ${line.quantity}`,
            line.date && dateWords(line.date),
            line.discountBp > 0 && `${line.discountBp / 100}% off`,
          ]
            .filter(Boolean)
            .join(", ")}
          value={amount(paper.pricesIncludeTax ? line.amountMinor : line.amountMinor - line.taxMinor)}
        />
      ))}
      <AmountRow name="Net" value={amount(netOf(paper))} />
      {taxesOf(paper).map(({ taxBp, netMinor, taxMinor }) => (
        <AmountRow key={taxBp} name={`Tax ${taxBp / 100}% on ${amount(netMinor)}`} value={amount(taxMinor)} />
      ))}
      <AmountRow name="Total" value={amount(paper.totalMinor)} strong />
      {paper.paidMinor > 0 && <AmountRow name="Paid" value={amount(-paper.paidMinor)} />}
      {paper.creditedMinor > 0 && <AmountRow name="Credited" value={amount(-paper.creditedMinor)} />}
      {paper.openMinor !== paper.totalMinor && <AmountRow name="To pay" value={amount(paper.openMinor)} strong />}
      {paper.taxWords && <Typography sx={{ mt: 3 }}>{paper.taxWords}</Typography>}
      {view.parts.length > 0 && <Parts view={view} amount={amount} />}
      {paper.openMinor > 0 && (
        <DueChoices
          token={token}
          coming={coming}
          currency={paper.currency}
          today={view.today}
          onChanged={() => router.refresh()}
        />
      )}
      {view.partsOffered > 1 && <InParts view={view} token={token} />}
      {paper.openMinor > 0 && <Pay view={view} token={token} amount={amount} />}
      {paper.after && (
        <Typography color="textSecondary" sx={{ mt: 4, whiteSpace: "pre-wrap" }}>
          {paper.after}
        </Typography>
      )}
      <Box sx={{ mt: 4, display: "flex", flexWrap: "wrap", gap: 2, ...hidden }}>
        <Button variant="outlined" href={`/invoice/${token}/invoice.pdf`}>
          PDF
        </Button>
        <Button href={`/invoice/${token}/invoice.xml`}>XML for your books</Button>
        {view.notes.map((note) => (
          <Button key={note.id} href={`/invoice/${token}/credit-note-${note.id}.pdf`}>
            Credit note {note.label}, {amount(note.totalMinor)}
          </Button>
        ))}
      </Box>
      <Typography color="textSecondary" sx={{ mt: 3 }}>
        Anything to ask? Call {call}.
      </Typography>
    </DoorPage>
  );
}

/** The parts that are open, each with its day. */
const Parts = ({ view, amount }: { view: View; amount: (minor: number) => string }) => (
  <Box component="section" aria-label="In parts" sx={{ mt: 4 }}>
    {view.parts.map((part) => (
      <AmountRow
        key={part.due}
        name={part.due < view.today ? `Was due on ${dateWords(part.due)}` : `Due on ${dateWords(part.due)}`}
        value={amount(part.openMinor)}
      />
    ))}
  </Box>
);

/** Instead of all at once, by the month, as the business offers it. */
function InParts({ view, token }: { view: View; token: string }) {
  const router = useRouter();
  const [parts, setParts] = useState(2);
  const { send, busy } = useChange("pay-in-parts", { then: () => router.refresh() });
  return (
    <Box component="section" aria-label="In parts" sx={{ mt: 4, display: "grid", gap: 2, ...hidden }}>
      <PartsField
        minor={view.paper.openMinor}
        most={view.partsOffered}
        currency={view.paper.currency}
        parts={parts}
        onParts={setParts}
      />
      <Button
        variant="outlined"
        disabled={busy || parts === 1}
        onClick={() => void send({ token, parts })}
        sx={{ minHeight: 48, justifySelf: "start" }}
      >
        Pay it in parts
      </Button>
    </Box>
  );
}

/** How often it is asked whether the card has paid. */
const askAgainMs = 1500;

function Pay({ view, token, amount }: { view: View; token: string; amount: (minor: number) => string }) {
  const router = useRouter();
  const { openMinor } = view.paper;
  const [card, setCard] = useState<string | null>(null);
  const [tipMinor, setTip] = useState(0);
  const { send, busy } = useChange("pay-invoice", { then: () => router.refresh() });
  const { payment } = view;
  const isUnderWay = payment?.state === "asked" || payment?.state === "second step";
  useEffect(() => {
    if (!isUnderWay) return;
    const timer = setInterval(() => router.refresh(), askAgainMs);
    return () => clearInterval(timer);
  }, [isUnderWay, router]);
  if (payment?.state === "second step" && openMinor > 0)
    return <BankStep address={payment.stepAddress!} of="invoice" token={token} onLeft={() => router.refresh()} />;
  if (isUnderWay)
    return (
      <Alert severity="info" sx={{ mt: 4 }}>
        Your card is being charged…
      </Alert>
    );
  if (!view.takesCards) return null;
  return (
    <Box sx={{ mt: 4, ...hidden }}>
      {payment?.state === "declined" && (
        <Alert severity="error" sx={{ mb: 3 }}>
          The card was declined{payment.problem ? `: ${payment.problem}` : ""}. Try another one.
        </Alert>
      )}
      <CardForm onToken={setCard} />
      {view.tips && <TipField currency={view.paper.currency} tipMinor={tipMinor} onTip={setTip} />}
      <Button
        variant="contained"
        fullWidth
        disabled={!card || busy}
        onClick={() => void send({ token, cardToken: card!, tipMinor, all: false })}
        sx={{ mt: 3, minHeight: 52, fontSize: 17 }}
      >
        Pay {amount(view.dueMinor)}
      </Button>
      {view.dueMinor < openMinor && (
        <Button
          variant="outlined"
          fullWidth
          disabled={!card || busy}
          onClick={() => void send({ token, cardToken: card!, tipMinor, all: true })}
          sx={{ mt: 2, minHeight: 52, fontSize: 17 }}
        >
          Pay all of it, {amount(openMinor)}
        </Button>
      )}
    </Box>
  );
}
