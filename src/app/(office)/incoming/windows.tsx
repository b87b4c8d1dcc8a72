"use client";
import type { ViewOutput } from "@/api/client";
import { DateField } from "@/ui/date-field";
import { ink } from "@/ui/palette";
import { SheetSection } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import { useState } from "react";

interface WindowsProps {
  data: ViewOutput<"incoming-entry">;
  /** What the office would do, where nobody has said. */
  serviceId: number | null;
  /** Which way of a quote they want. */
  option: number;
  /** The only day that is asked for. */
  date: string | null;
  onDate: (date: string | null) => void;
  onDone: (words: string) => void;
}

/** The best windows, with who would come: for a booking another one to propose, otherwise the one to book. */
export function Windows({ data, serviceId, option, date, onDate, onDone }: WindowsProps) {
  const [picked, setPicked] = useState<number | null>(null);
  const propose = useChange("propose-window");
  const bookRequest = useChange("book-request");
  const bookQuote = useChange("book-quote");
  const chosen = data.windows.find((w) => w.from === picked);
  const proposing = data.kind === "booking";
  const title = proposing
    ? "Propose another time"
    : data.kind === "quote" && data.standing !== "accepted"
      ? "They said yes on the phone? Book it"
      : "Book it";
  const send = async ({ date: day, from, to, words }: NonNullable<typeof chosen>) => {
    const window = { date: day, from, to };
    const sent = await {
      booking: () => propose.send({ jobId: data.id, ...window }),
      request: () => bookRequest.send({ requestId: data.id, ...window, ...(serviceId !== null && { serviceId }) }),
      quote: () => bookQuote.send({ quoteId: data.id, option, ...window }),
    }[data.kind]();
    if (sent)
      onDone(proposing ? `${data.name} is asked whether ${words} suits` : `Booked for ${words}, ${data.name} is told`);
  };
  const onDay = <DateField label="Only on" value={date} onValue={onDate} width={190} clearable />;
  if (data.windows.length === 0)
    return (
      <SheetSection title="No window can be kept">
        <Box sx={{ color: ink.ash, fontSize: 14.5, mb: 3 }}>
          Nobody who may do this has room {date === null ? "in the coming weeks" : "on this day"}.
        </Box>
        {date !== null && onDay}
      </SheetSection>
    );
  return (
    <SheetSection title={title}>
      {data.windows.map((w) => (
        <ButtonBase
          key={w.from}
          aria-pressed={picked === w.from}
          onClick={() => setPicked(w.from)}
          sx={{
            display: "block",
            width: "100%",
            textAlign: "left",
            px: 3,
            py: 1.5,
            mb: 1,
            borderRadius: "16px 16px 6px 6px",
            border: `1px solid ${picked === w.from ? ink.pine : ink.line}`,
            bgcolor: picked === w.from ? ink.plaster : "#fff",
            fontSize: 14.5,
          }}
        >
          <b>{w.words}</b>
          {w.suits && (
            <Box component="span" sx={{ color: ink.moss, fontWeight: 650 }}>
              {" "}
              ✓ suits them
            </Box>
          )}
          <Box sx={{ color: ink.ash }}>
            {w.technicians.join(", ")} · {w.extraDriving} min more driving
          </Box>
        </ButtonBase>
      ))}
      <Box sx={{ mt: 3, mb: 2 }}>{onDay}</Box>
      <Button
        variant={proposing ? "outlined" : "contained"}
        disabled={!chosen || propose.busy || bookRequest.busy || bookQuote.busy}
        onClick={() => chosen && void send(chosen)}
      >
        {proposing ? "Propose it to them" : "Book it and tell them"}
      </Button>
    </SheetSection>
  );
}
