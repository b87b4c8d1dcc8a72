"use client";
import type { ViewOutput } from "@/api/client";
import { moneyTyped, moneyWords, parseMoney } from "@/core/money/amounts";
import { CardForm } from "@/ui/card-form";
import { useRefresh } from "@/ui/live";
import { ink } from "@/ui/palette";
import { TipField } from "@/ui/tip-field";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import { nanoid } from "nanoid";
import { useSnackbar } from "notistack";
import { useEffect, useState } from "react";

type View = ViewOutput<"field-day">;
type Stop = View["stops"][number];

interface TakePaymentProps {
  stop: Pick<Stop, "id" | "dueMinor" | "card">;
  currency: string;
  takes: View["takes"];
}

const wide = { minHeight: 52, fontSize: 17 };

/** What is paid at the door: cash with its change, a cheque, a card that is held to the reader or typed in. */
export function TakePayment({ stop, currency, takes }: TakePaymentProps) {
  const [open, setOpen] = useState(false);
  const { card, dueMinor } = stop;
  const isUnderWay = card !== null && card.state !== "received" && card.state !== "declined";
  return (
    <Box sx={{ display: "grid", gap: 3 }}>
      {card && <CardState card={card} visitId={stop.id} currency={currency} />}
      {!isUnderWay && dueMinor > 0 && !open && (
        <Button variant="outlined" onClick={() => setOpen(true)} sx={{ minHeight: 48 }}>
          Take payment, {moneyWords(dueMinor, currency)}
        </Button>
      )}
      {!isUnderWay && dueMinor > 0 && open && (
        <Ways stop={stop} currency={currency} takes={takes} onClose={() => setOpen(false)} />
      )}
    </Box>
  );
}

/** How often it is asked whether the card has paid. */
const askAgainMs = 1500;

/** How it stands with the card; while it is under way the screen asks again and again. */
function CardState({
  card,
  visitId,
  currency,
}: {
  card: NonNullable<Stop["card"]>;
  visitId: number;
  currency: string;
}) {
  const refresh = useRefresh();
  const end = useChange("end-reader");
  const isUnderWay = card.state !== "received" && card.state !== "declined";
  useEffect(() => {
    if (!isUnderWay) return;
    const timer = setInterval(() => void refresh(), askAgainMs);
    return () => clearInterval(timer);
  }, [isUnderWay, refresh]);
  const amount = moneyWords(card.minor, currency);
  const says = {
    waiting: `The reader waits for a card: ${amount}.`,
    asked: `The card is being charged ${amount}…`,
    "second step": "The bank asks the customer once more: on their own link.",
    received: `${amount} came by card.`,
    declined: `The card was declined${card.problem ? `: ${card.problem}` : ""}. Try another, or another way.`,
  }[card.state];
  return (
    <Alert
      severity={card.state === "received" ? "success" : card.state === "declined" ? "error" : "info"}
      action={
        card.state === "waiting" && (
          <Button color="inherit" disabled={end.busy} onClick={() => void end.send({ visitId })}>
            Not now
          </Button>
        )
      }
    >
      {says}
    </Alert>
  );
}

type Way = "cash" | "cheque" | "reader" | "typed";
const wayWords: Record<Way, string> = { cash: "cash", cheque: "cheque", reader: "card reader", typed: "card typed in" };

function Ways({ stop, currency, takes, onClose }: TakePaymentProps & { onClose: () => void }) {
  const { id: visitId, dueMinor } = stop;
  const [way, setWay] = useState<Way>("cash");
  const [typed, setTyped] = useState("");
  const [note, setNote] = useState("");
  const [tipMinor, setTip] = useState(0);
  const [cardToken, setCard] = useState<string | null>(null);
  const [key] = useState(() => nanoid());
  const record = useChange("take-payment");
  const reader = useChange("ask-reader");
  const card = useChange("take-card");
  const { enqueueSnackbar } = useSnackbar();
  const amount = (minor: number) => moneyWords(minor, currency);
  const given = typed.trim() === "" ? dueMinor + tipMinor : parseMoney(typed, currency);
  const takenMinor = Math.min(Math.max(0, (given ?? 0) - tipMinor), dueMinor);
  const changeMinor = given === null ? 0 : Math.max(0, given - tipMinor - takenMinor);
  const ways: Way[] = [
    "cash",
    "cheque",
    ...(takes.readers ? ["reader" as const] : []),
    ...(takes.cards ? ["typed" as const] : []),
  ];
  const busy = record.busy || reader.busy || card.busy;
  const byHand = way === "cash" || way === "cheque";

  const take = async () => {
    const sum = { visitId, amountMinor: takenMinor, tipMinor };
    if (byHand) {
      const done = await record.send({ ...sum, method: way, note: way === "cheque" ? note : "", key });
      if (!done) return;
      enqueueSnackbar(`${amount(takenMinor + tipMinor)} is recorded`, { variant: "success" });
    } else if (way === "reader") {
      if (!(await reader.send({ ...sum, key }))) return;
    } else if (!cardToken || !(await card.send({ ...sum, cardToken }))) return;
    onClose();
  };
  return (
    <Box
      role="group"
      aria-label="Take payment"
      sx={{ borderTop: `1px solid ${ink.line}`, pt: 3, display: "grid", gap: 3 }}
    >
      <ToggleButtonGroup
        exclusive
        value={way}
        onChange={(_, chosen: Way | null) => chosen && setWay(chosen)}
        aria-label="How"
        sx={{ display: "grid", gridTemplateColumns: "1fr 1fr" }}
      >
        {ways.map((one) => (
          <ToggleButton key={one} value={one} sx={{ minHeight: 48, textTransform: "none", fontSize: 16 }}>
            {wayWords[one]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <TextField
        label={way === "cash" ? "Given to you" : way === "cheque" ? "Amount of the cheque" : "To be charged"}
        placeholder={moneyTyped(dueMinor + tipMinor, currency)}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        error={given === null || !!record.wrong("/amountMinor")}
        helperText={given === null ? "Such as 89.50" : record.wrong("/amountMinor")}
        slotProps={{ htmlInput: { inputMode: "decimal" }, inputLabel: { shrink: true } }}
      />
      {way === "cheque" && (
        <TextField
          label="Number of the cheque"
          value={note}
          onChange={(e) => setNote(e.target.value)}
          slotProps={{ htmlInput: { maxLength: 140 } }}
        />
      )}
      {takes.tips && <TipField currency={currency} tipMinor={tipMinor} onTip={setTip} />}
      {way === "typed" && <CardForm onToken={setCard} />}
      {given !== null && (
        <Box role="status" sx={{ fontSize: 17 }}>
          {changeMinor > 0 ? (
            way === "cash" ? (
              <>
                Change: <b>{amount(changeMinor)}</b>
              </>
            ) : (
              `Only ${amount(dueMinor)} is due${way === "cheque" ? ": the cheque is for more" : ""}.`
            )
          ) : takenMinor < dueMinor ? (
            `${amount(dueMinor - takenMinor)} stays open.`
          ) : (
            "It is paid in full."
          )}
        </Box>
      )}
      <Button
        variant="contained"
        disabled={busy || takenMinor <= 0 || (way !== "cash" && changeMinor > 0) || (way === "typed" && !cardToken)}
        onClick={() => void take()}
        sx={wide}
      >
        {byHand ? "Record payment" : way === "reader" ? "Show it on the reader" : "Charge the card"},{" "}
        {amount(takenMinor + tipMinor)}
      </Button>
      <Button onClick={onClose} sx={{ minHeight: 48 }}>
        Not now
      </Button>
    </Box>
  );
}
