"use client";
import type { ViewOutput } from "@/api/client";
import type { Answers } from "@/core/catalogue/questions";
import { moneyWords } from "@/core/money/amounts";
import { localDate } from "@/core/time/local";
import { clockIn, windowIn } from "@/core/time/local-words";
import { daysWords, dayWords } from "@/core/time/words";
import { OrderForm } from "@/ui/order-form";
import { ink } from "@/ui/palette";
import { PhotoField } from "@/ui/photo-field";
import { useChange } from "@/ui/use-change";
import { useView } from "@/ui/use-view";
import { type PickedWindow, PickerSkeleton, WindowPicker } from "@/ui/window-picker";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";

type View = ViewOutput<"my-visit">;
interface About {
  view: View;
  token: string;
  refresh: () => void;
}
const big = { minHeight: 52, fontSize: 17 };

/** What a customer may do about the visit, until when, and what it costs; one thing open at a time. */
export function OwnChanges({ view, token, justBooked, refresh }: About & { justBooked: boolean }) {
  const [open, setOpen] = useState<"move" | "cancel" | "add" | null>(null);
  const confirm = useChange("confirm-by-link", { then: refresh });
  const { business, changes, visit, job } = view;
  if (!changes) return null;
  // Whoever has booked this very moment has just said so.
  const mayConfirm =
    (!justBooked || job.approval === "proposed") &&
    job.state === "agreed" &&
    job.approval !== "waiting" &&
    visit.confirmed_at === null;
  const toggle = (what: typeof open) => setOpen(open === what ? null : what);
  const done = () => {
    setOpen(null);
    refresh();
  };
  const until = (minute: number) =>
    `${dayWords(localDate(minute, business.timeZone))}, ${clockIn(minute, business.timeZone)}`;
  return (
    <Box component="section" aria-label="Change something" sx={{ mt: 7 }}>
      <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", "@media print": { display: "none" } }}>
        {mayConfirm && (
          <Button variant="contained" disabled={confirm.busy} onClick={() => void confirm.send({}, token)} sx={big}>
            {job.approval === "proposed" ? "This suits me" : "I will be there"}
          </Button>
        )}
        {visit.confirmed_at !== null && (
          <Box sx={{ ...big, display: "flex", alignItems: "center", color: ink.moss, fontWeight: 650, pr: 2 }}>
            ✓ You have confirmed
          </Box>
        )}
        {changes.mayMove && (
          <Button variant="outlined" aria-expanded={open === "move"} onClick={() => toggle("move")} sx={big}>
            Move
          </Button>
        )}
        {changes.mayCancel && (
          <Button variant="outlined" aria-expanded={open === "cancel"} onClick={() => toggle("cancel")} sx={big}>
            Cancel
          </Button>
        )}
        <Button variant="outlined" aria-expanded={open === "add"} onClick={() => toggle("add")} sx={big}>
          Tell us something
        </Button>
        <Button variant="outlined" href={`/my/${token}/visit.ics`} download="visit.ics" sx={big}>
          Into my calendar
        </Button>
        <Button onClick={() => window.print()} sx={big}>
          Print
        </Button>
      </Box>
      {open === "move" && <Move view={view} token={token} refresh={done} />}
      {open === "cancel" && <Cancel view={view} token={token} refresh={done} again={refresh} />}
      {open === "add" && <Add view={view} token={token} refresh={done} />}
      {view.asked.map((asked) => (
        <StillAsked key={asked.position} asked={asked} view={view} token={token} refresh={refresh} />
      ))}
      <Typography color="textSecondary" sx={{ mt: 4 }}>
        {changes.mayMove
          ? `You can move it here until ${until(changes.moveUntil)}. `
          : changes.mayCancel
            ? `To move it, call ${business.phone}. `
            : ""}
        {changes.mayCancel
          ? `You can cancel here until ${until(changes.cancelUntil)}. `
          : `It is too late to ${changes.mayMove ? "cancel" : "change"} it here: call ${business.phone}. `}
        {view.termsWords.join(" ")}
      </Typography>
    </Box>
  );
}

/** Nobody was home: another time, and what that costs. */
export function ComeAgain({ view, token, refresh }: About) {
  const { missed, business } = view;
  if (!missed) return null;
  return (
    <Box component="section" aria-label="Another time" sx={{ mt: 7 }}>
      <Alert severity="warning" sx={{ fontSize: 16 }}>
        We were at your door and found nobody home.
        {missed.feeMinor > 0 && ` As agreed, coming again costs ${moneyWords(missed.feeMinor, business.currency)}.`}
      </Alert>
      <Move view={view} token={token} refresh={refresh} />
    </Box>
  );
}

function Move({ view, token, refresh }: About) {
  const { data: offers, problem, refresh: lookAgain } = useView("my-offers", {}, token);
  const [chosen, setChosen] = useState<PickedWindow | null>(null);
  const own = useChange("move-by-link", { quiet: true });
  const anew = useChange("go-again-by-link", { quiet: true });
  const { missed } = view;
  const { busy, problem: refused } = missed ? anew : own;
  const { timeZone, phone } = view.business;
  const move = async () => {
    const { date, from, to } = chosen!;
    const done = missed
      ? await anew.send({ date, from, to, feeMinor: missed.feeMinor }, token)
      : await own.send({ date, from, to }, token);
    if (done) return refresh();
    setChosen(null);
    lookAgain();
  };
  if (problem)
    return (
      <Alert severity="warning" sx={{ mt: 4 }}>
        {problem.sentence}
      </Alert>
    );
  if (!offers) return <PickerSkeleton />;
  if (offers.length === 0)
    return (
      <Typography sx={{ mt: 4 }}>
        Nothing else is free in the next weeks. Call us on {phone}: we will find a way.
      </Typography>
    );
  return (
    <Box role="group" aria-label="Move to another window" sx={{ mt: 4 }}>
      {refused && (
        <Alert severity="warning" role="alert" sx={{ mb: 2, fontSize: 16 }}>
          {refused.sentence}
        </Alert>
      )}
      {view.changes && view.changes.moveTakesMinor > 0 && (
        <Typography sx={{ mb: 3 }}>
          Moving costs nothing. Since it is late, cancelling will still cost{" "}
          {moneyWords(view.changes.moveTakesMinor, view.business.currency)} afterwards, whenever you do it.
        </Typography>
      )}
      <WindowPicker offers={offers} chosen={chosen} onChoose={setChosen} />
      <Button
        variant="contained"
        fullWidth
        disabled={!chosen || busy}
        onClick={() => void move()}
        sx={{ ...big, mt: 2 }}
      >
        {chosen
          ? `${missed ? "Come on" : "Move to"} ${daysWords([chosen.date, ...chosen.followingDays])}, ${windowIn(chosen.from, chosen.to, timeZone)}`
          : "Choose a window"}
      </Button>
    </Box>
  );
}

function Cancel({ view, token, refresh, again }: About & { again: () => void }) {
  const { send, busy, problem } = useChange("cancel-by-link", { quiet: true });
  const fee = view.changes!.feeMinor;
  const words = moneyWords(fee, view.business.currency);
  const paid = view.payments.filter((p) => p.state === "received").reduce((sum, p) => sum + p.amount_minor, 0);
  const back = Math.max(0, paid - fee);
  // Where it is refused, what it costs has changed: the new sum is read before the next tap.
  const cancel = async () => ((await send({ feeMinor: fee }, token)) ? refresh() : again());
  return (
    <Box
      role="group"
      aria-label="Cancel the visit"
      sx={{ mt: 4, p: 4, border: `1px solid ${ink.line}`, borderRadius: "6px", bgcolor: "#fff" }}
    >
      {problem && (
        <Alert severity="warning" role="alert" sx={{ mb: 3, fontSize: 16 }}>
          {problem.sentence}
        </Alert>
      )}
      <Typography>
        {fee > 0 ? `Cancelling now costs ${words}.` : "Cancelling now costs nothing."}
        {back > 0 && ` ${moneyWords(back, view.business.currency)} of what you paid goes back to your card.`}
        {fee > paid && fee > 0 && ` You get an invoice for ${moneyWords(fee - paid, view.business.currency)}.`}
        {view.repeat?.active && " It is this visit only: what comes later stays, unless you end it above."}
      </Typography>
      <Button variant="contained" color="error" disabled={busy} onClick={() => void cancel()} sx={{ ...big, mt: 3 }}>
        {fee > 0 ? `Cancel the visit for ${words}` : "Cancel the visit"}
      </Button>
    </Box>
  );
}

function Add({ view, token, refresh }: About) {
  const [words, setWords] = useState("");
  const [photos, setPhotos] = useState<string[]>([]);
  const { send, busy, wrong } = useChange("add-by-link", { then: refresh });
  return (
    <Box role="group" aria-label="Tell us something" sx={{ mt: 4, display: "grid", gap: 3 }}>
      {view.additions.map((a) => (
        <Box key={a.id} sx={{ color: ink.ash }}>
          You wrote: {a.words}
          {a.photos.length > 0 && ` (${a.photos.length} ${a.photos.length === 1 ? "photo" : "photos"})`}
        </Box>
      ))}
      <TextField
        label="What should we know?"
        size="medium"
        multiline
        minRows={2}
        value={words}
        onChange={(e) => setWords(e.target.value)}
        error={!!wrong("/words")}
        helperText={wrong("/words") ?? "A gate code, a dog, where to park"}
      />
      <PhotoField tokens={photos} most={6} what="Photos for us" onTokens={setPhotos} />
      <Button variant="outlined" disabled={busy} onClick={() => void send({ words, photos }, token)} sx={big}>
        {busy ? "One moment…" : "Send"}
      </Button>
    </Box>
  );
}

/** What a service still asks: it helps us, and changes nothing that was agreed. */
function StillAsked({ asked, view, token, refresh }: About & { asked: View["asked"][number] }) {
  const [answers, setAnswers] = useState<Answers>({});
  const { send, busy, problem } = useChange("answer-by-link", { then: refresh });
  const problems = Object.fromEntries(
    Object.entries(problem?.fields ?? {}).map(([at, sentence]) => [at.replace("/answers/", ""), sentence]),
  );
  return (
    <Box
      role="group"
      aria-label={`Still asked about ${asked.service}`}
      sx={{ mt: 6, pt: 4, borderTop: `1px solid ${ink.line}`, display: "grid", gap: 4 }}
    >
      <Typography variant="h2">It helps us to know</Typography>
      <OrderForm
        questions={asked.questions}
        extras={[]}
        answers={answers}
        chosen={[]}
        currency={view.business.currency}
        problems={problems}
        onAnswers={setAnswers}
        onChosen={() => {}}
      />
      <Button
        variant="outlined"
        disabled={busy || Object.keys(answers).length === 0}
        onClick={() => void send({ position: asked.position, answers }, token)}
        sx={big}
      >
        Send
      </Button>
    </Box>
  );
}
