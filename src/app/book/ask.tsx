"use client";
import { addDays, type LocalDate } from "@/core/time/dates";
import { clock, weekdayNames } from "@/core/time/words";
import type { Wish } from "@/core/windows/wishes";
import { useHabits, weekdaysFrom } from "@/ui/habits";
import { NotesProvider } from "@/ui/notes";
import { Pick } from "@/ui/order-form";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { type ReactNode, useState } from "react";
import type { Business } from "./data";
import type { Draft } from "./draft";

/** What cannot be booked as it stands: one may ask, and a person answers. Where windows open by themselves (`waits`), days and times are asked for, and one is told. */
/** With notes of its own: the front door’s first page goes without. */
export const Ask = (props: Parameters<typeof AskForm>[0]) => (
  <NotesProvider>
    <AskForm {...props} />
  </NotesProvider>
);

function AskForm({
  draft,
  business,
  words,
  waits = false,
  onType,
}: {
  draft: Draft;
  business: Business;
  words: string;
  waits?: boolean;
  onType: (part: Partial<Draft>) => void;
}) {
  const { name, mail, phone, wishes, wish } = draft;
  const { send, busy, wrong } = useChange("make-request");
  const [done, setDone] = useState(false);
  const field = (name: "name" | "mail" | "phone" | "wishes", label: string, more: object = {}) => (
    <TextField
      label={label}
      size="medium"
      value={draft[name]}
      onChange={(e) => onType({ [name]: e.target.value })}
      error={!!wrong(`/${name}`)}
      helperText={wrong(`/${name}`)}
      {...more}
    />
  );
  if (done)
    return (
      <Alert severity="success" role="status" sx={{ mt: 4, fontSize: 16 }}>
        {waits
          ? "Thank you. When a time that suits you opens, we write to you, and you take it with one tap."
          : "Thank you. We have your request and will call or write to you."}
      </Alert>
    );
  const ask = () =>
    void send({
      addressId: draft.address?.id ?? null,
      items: draft.items,
      address: "",
      photos: draft.photos,
      wish: waits ? wish : null,
      name,
      mail,
      phone,
      wishes,
    }).then((sent) => {
      if (!sent) return;
      setDone(true);
      onType({ wishes: "" });
    });
  return (
    <Box sx={{ mt: 4, display: "grid", gap: 4 }}>
      <Alert severity="info" sx={{ fontSize: 16 }}>
        {words}
      </Alert>
      {waits && <WishField wish={wish} today={business.today} onWish={(to) => onType({ wish: to })} />}
      {field("wishes", waits ? "Anything else" : "What do you need, and when?", { multiline: true, minRows: 2 })}
      {field("name", "Name", { autoComplete: "name" })}
      {field("mail", "Email", { autoComplete: "email", type: "email" })}
      {field("phone", "Phone", { autoComplete: "tel", type: "tel" })}
      <Button variant="outlined" disabled={busy} onClick={ask} sx={{ minHeight: 52, fontSize: 17 }}>
        {busy ? "One moment…" : waits ? "Tell me when a time comes free" : "Send request"}
      </Button>
    </Box>
  );
}

const times = (): { words: string; from: number; to: number }[] => [
  { words: "Any time", from: 0, to: 1440 },
  { words: "Before noon", from: 0, to: 780 },
  { words: "Afternoon", from: 720, to: 1080 },
  { words: `From ${clock(900)}`, from: 900, to: 1440 },
];

/** By when, in days from today. */
const hurries = [
  { words: "No hurry", days: null },
  { words: "Within a week", days: 7 },
  { words: "Within a month", days: 30 },
] as const;

/** Days and times that would suit, and by when. */
function WishField({ wish, today, onWish }: { wish: Wish; today: LocalDate; onWish: (wish: Wish) => void }) {
  const { weekStart } = useHabits();
  const has = (day: number) => (wish.weekdays & (1 << day)) !== 0;
  const every = wish.weekdays === 127;
  const toggle = (day: number) => onWish({ ...wish, weekdays: every ? 1 << day : wish.weekdays ^ (1 << day) || 127 });
  return (
    <>
      <Picks asked="Which days would suit?">
        <Pick on={every} onPick={() => onWish({ ...wish, weekdays: 127 })}>
          Any day
        </Pick>
        {weekdaysFrom(weekStart).map((day) => (
          <Pick key={day} on={!every && has(day)} onPick={() => toggle(day)}>
            {weekdayNames[day]!.slice(0, 3)}
          </Pick>
        ))}
      </Picks>
      <Picks asked="Which times?">
        {times().map(({ words, from, to }) => (
          <Pick key={words} on={wish.from === from && wish.to === to} onPick={() => onWish({ ...wish, from, to })}>
            {words}
          </Pick>
        ))}
      </Picks>
      <Picks asked="How soon?">
        {hurries.map(({ words, days }) => {
          const until = days === null ? null : addDays(today, days);
          return (
            <Pick key={words} on={wish.until === until} onPick={() => onWish({ ...wish, until })}>
              {words}
            </Pick>
          );
        })}
      </Picks>
    </>
  );
}

const Picks = ({ asked, children }: { asked: string; children: ReactNode }) => (
  <Box role="group" aria-label={asked}>
    <Box sx={{ fontWeight: 650, mb: 2 }}>{asked}</Box>
    <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap" }}>{children}</Box>
  </Box>
);
