"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { everyWords } from "@/core/repeats/rule";
import { windowIn } from "@/core/time/local-words";
import { daysWords, dayWords, durationWords } from "@/core/time/words";
import { AmountRow, DoorFact, DoorPage } from "@/ui/door-page";
import { SaidWith } from "@/ui/said-with";
import { PartsField } from "@/ui/parts-field";
import { SignatureField } from "@/ui/signature-field";
import { useChange } from "@/ui/use-change";
import { useView } from "@/ui/use-view";
import { type PickedWindow, PickerSkeleton, WindowPicker } from "@/ui/window-picker";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useRouter } from "next/navigation";
import { useState } from "react";

type View = ViewOutput<"quote">;

const big = { minHeight: 52, fontSize: 17 };
const titles: Record<View["state"], string> = {
  sent: "Your quote",
  accepted: "Quote accepted",
  booked: "You are booked",
  declined: "Quote declined",
  withdrawn: "",
  "run out": "This quote has run out",
};

/** What a quote's link opens: what is offered, its price, and the windows; one tap accepts and books. */
export function Quote({ view, token }: { view: View; token: string }) {
  const { business } = view;
  const amount = (minor: number) => moneyWords(minor, business.currency);
  const call = <a href={`tel:${business.phone.replace(/[^\d+]/g, "")}`}>{business.phone}</a>;
  const open = view.state === "sent" || view.state === "declined";
  const [option, setOption] = useState(0);
  const work = view.options[option] ?? view;
  return (
    <DoorPage look={view.look} business={business}>
      <Box role="status">
        <Typography variant="h1">{titles[view.state]}</Typography>
      </Box>
      {view.state === "booked" && (
        <Button variant="contained" fullWidth href={`/my/${view.booked}`} sx={{ ...big, mt: 4 }}>
          See the visit
        </Button>
      )}
      {view.state === "accepted" && (
        <Typography sx={{ mt: 3 }}>
          We look for a time and call or write to you. You may still choose one yourself, below.
        </Typography>
      )}
      {view.state === "run out" && (
        <Typography sx={{ mt: 3 }}>
          It stood until {dayWords(view.validUntil)}. Call us on {call}: we will see what we can do.
        </Typography>
      )}
      {view.state === "declined" && (
        <Typography sx={{ mt: 3 }}>
          Thank you for telling us. Until {dayWords(view.validUntil)} you can still change your mind, below.
        </Typography>
      )}
      {view.words && <Typography sx={{ mt: 3, whiteSpace: "pre-wrap" }}>{view.words}</Typography>}
      <Box sx={{ mt: 5 }}>
        <DoorFact name="Quote">
          {view.id}
          {open && (
            <>
              , for {view.name}; it stands until <b>{dayWords(view.validUntil)}</b>
            </>
          )}
        </DoorFact>
        <DoorFact name="What">
          {work.what}, {view.days > 1 ? `${view.days} days` : `about ${durationWords(work.minutes)}`}
        </DoorFact>
        {view.chosen && <DoorFact name="Chosen">{view.chosen}</DoorFact>}
        <DoorFact name="Where">{view.address}</DoorFact>
        {view.repeats.map((often) => (
          <DoorFact key={often.unit} name="Again">
            {everyWords(often)}, at the same price, until you end it
          </DoorFact>
        ))}
      </Box>
      <Typography variant="h2" sx={{ mt: 6, mb: 2 }}>
        {view.options.length ? "Which one?" : "Price"}
      </Typography>
      {view.options.length > 0 && <Options view={view} option={option} onOption={setOption} />}
      {work.lines.map((line, i) => (
        <AmountRow
          key={i}
          name={line.quantity === 1 ? line.description : `${line.description} × ${line.quantity}`}
          value={amount(line.amountMinor)}
        />
      ))}
      <AmountRow name="Total, tax included" value={amount(work.totalMinor)} strong />
      <AmountRow name="Of that tax" value={amount(work.taxMinor)} />
      {work.depositMinor > 0 && (
        <AmountRow name="Deposit, paid by card when you accept" value={amount(work.depositMinor)} />
      )}
      <Typography color="textSecondary" sx={{ mt: 3 }}>
        {view.termsWords.join(" ")}
      </Typography>
      {(open || view.state === "accepted") && (
        <Answer key={option} view={view} token={token} option={option} totalMinor={work.totalMinor} />
      )}
      {view.signature && (
        <Box sx={{ mt: 6 }}>
          <img src={view.signature} alt={`Signature of ${view.signedBy}`} style={{ maxWidth: 280, maxHeight: 120 }} />
          <Typography color="textSecondary">Signed by {view.signedBy}</Typography>
        </Box>
      )}
      {business.terms && (
        <Typography color="textSecondary" sx={{ mt: 3, whiteSpace: "pre-wrap" }}>
          {business.terms}
        </Typography>
      )}
      <Typography color="textSecondary" sx={{ mt: 3 }}>
        Anything to ask? Call {call}.{" "}
        <Button size="small" href={`/quote/${token}/quote.pdf`} sx={{ "@media print": { display: "none" } }}>
          PDF
        </Button>
      </Typography>
    </DoorPage>
  );
}

/** What there is to choose from, each with what it comes to. */
function Options({ view, option, onOption }: { view: View; option: number; onOption: (option: number) => void }) {
  return (
    <ToggleButtonGroup
      exclusive
      fullWidth
      value={option}
      onChange={(_, i: number | null) => i !== null && onOption(i)}
      aria-label="Options"
      sx={{ mb: 3, "@media print": { display: "none" } }}
    >
      {view.options.map(({ name, totalMinor }, i) => (
        <ToggleButton key={name} value={i} sx={{ textTransform: "none", display: "block", minHeight: 64 }}>
          <Box sx={{ fontSize: 17, fontWeight: 650 }}>{name}</Box>
          <Box sx={{ fontSize: 15 }}>{moneyWords(totalMinor, view.business.currency)}</Box>
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}

/** Yes, in a window or without one; or no. One thing open at a time. */
function Answer({
  view,
  token,
  option,
  totalMinor,
}: {
  view: View;
  token: string;
  option: number;
  totalMinor: number;
}) {
  const router = useRouter();
  const { data: offers, problem, refresh } = useView("quote-offers", { token, option });
  const [chosen, setChosen] = useState<PickedWindow | null>(null);
  const [open, setOpen] = useState<"none suits" | "no" | null>(null);
  const [words, setWords] = useState("");
  const [signature, setSignature] = useState({ name: "", drawing: "" });
  const [parts, setParts] = useState(1);
  const mayPart = view.partsOffered > 1 && totalMinor >= view.partsFromMinor;
  const asksToSign = view.signs && !view.signedBy;
  const mustSign = asksToSign && !(signature.name.trim() && signature.drawing);
  const accept = useChange("accept-quote", { quiet: true });
  const decline = useChange("decline-quote", { quiet: true });
  const { timeZone } = view.business;
  const refused = accept.problem ?? decline.problem;
  const take = async (window: PickedWindow | null) => {
    const sent = await accept.send({
      token,
      totalMinor,
      option,
      signed: asksToSign ? signature : null,
      ...(mayPart && { parts }),
      window: window && { date: window.date, from: window.from, to: window.to },
      words,
    });
    if (sent?.value.link) return location.assign(`/my/${sent.value.link}?booked`);
    setChosen(null);
    refresh();
    router.refresh();
  };
  const sayNo = async () => {
    if (await decline.send({ token, words })) router.refresh();
    setOpen(null);
  };
  const mayAnswer = view.state === "sent" || view.state === "declined";
  return (
    <Box component="section" aria-label="Your answer" sx={{ mt: 6, "@media print": { display: "none" } }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        When shall we come?
      </Typography>
      {problem && (
        <Alert severity="warning" sx={{ mt: 3, fontSize: 16 }}>
          {problem.sentence}
        </Alert>
      )}
      {!offers && !problem && <PickerSkeleton />}
      {offers?.length === 0 && (
        <Typography>Nothing is free in the next weeks. Accept it, and we find a time with you.</Typography>
      )}
      {offers && offers.length > 0 && <WindowPicker offers={offers} chosen={chosen} onChoose={setChosen} />}
      {mayPart && (
        <Box sx={{ mt: 4 }}>
          <PartsField
            minor={totalMinor}
            most={view.partsOffered}
            currency={view.business.currency}
            parts={parts}
            onParts={setParts}
            problem={accept.wrong("/parts")}
          />
        </Box>
      )}
      {view.parts > 1 && (
        <Typography sx={{ mt: 4 }}>Paid in {view.parts} monthly parts once it is done, as agreed.</Typography>
      )}
      {asksToSign && (
        <Box sx={{ mt: 4 }}>
          <SignatureField
            signature={signature}
            onSignature={setSignature}
            problem={accept.wrong("/signed") ?? accept.wrong("/signed/drawing")}
          />
        </Box>
      )}
      {refused && (
        <Alert severity="warning" role="alert" sx={{ mt: 3, fontSize: 16 }}>
          {refused.sentence}
        </Alert>
      )}
      {offers && offers.length > 0 && (
        <Button
          variant="contained"
          fullWidth
          disabled={!chosen || accept.busy || mustSign}
          onClick={() => void take(chosen)}
          sx={{ ...big, mt: 3 }}
        >
          {accept.busy
            ? "One moment…"
            : chosen
              ? `Accept for ${daysWords([chosen.date, ...chosen.followingDays])}, ${windowIn(chosen.from, chosen.to, timeZone)}`
              : "Choose a time to accept"}
          {chosen && mustSign && ": sign above"}
        </Button>
      )}
      <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", mt: 3 }}>
        {view.state !== "accepted" && (
          <Button
            variant="outlined"
            aria-expanded={open === "none suits"}
            onClick={() => setOpen(open === "none suits" ? null : "none suits")}
            sx={big}
          >
            {offers?.length ? "None of these suits" : "Accept without a time"}
          </Button>
        )}
        {view.state !== "declined" && (
          <Button aria-expanded={open === "no"} onClick={() => setOpen(open === "no" ? null : "no")} sx={big}>
            No, thank you
          </Button>
        )}
      </Box>
      {open === "no" && (
        <SaidWith
          name="No, thank you"
          label="Why, if you like to say"
          words={words}
          onWords={setWords}
          button="Decline"
          outlined
          disabled={decline.busy}
          onSay={() => void sayNo()}
        />
      )}
      {open === "none suits" && (
        <SaidWith
          name="Accept without a time"
          label="When would it suit you?"
          words={words}
          onWords={setWords}
          button="Accept, and find a time with me"
          disabled={accept.busy || !mayAnswer || mustSign}
          onSay={() => void take(null)}
        />
      )}
    </Box>
  );
}
