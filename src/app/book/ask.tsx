"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { clock, weekdayNames } from "@/core/time/words";
import type { Wish } from "@/core/windows/wishes";
import { useHabits, weekdaysFrom } from "@/ui/habits";
import { Pick } from "@/ui/order-form";
import { useChange } from "@/ui/use-change";
import type { Draft } from "./draft";
import type { Business } from "./front-door";

/** What cannot be booked as it stands: one may ask, and a person answers. Where windows open by themselves (`waits`), days and times are asked for, and one is told. */
export function Ask({ draft, business, words, waits = false, onType }: { draft: Draft; business: Business; words: string; waits?: boolean; onType: (part: Partial<Draft>) => void }) {
  const { name, mail, phone, wishes, wish } = draft;
  const { send, busy, wrong } = useChange("make-request");
  const [done, setDone] = useState(false);
  const field = (name: "name" | "mail" | "phone" | "wishes", label: string, more: object = {}) => <TextField label={label} size="medium" value={draft[name]} onChange={(e) => onType({ [name]: e.target.value })} error={!!wrong(`/${name}`)} helperText={wrong(`/${name}`)} {...more} />;
  if (done) return <Alert severity="success" role="status" sx={{ mt: 4, fontSize: 16 }}>{waits ? "Thank you. When a time that suits you opens, we write to you, and you take it with one tap." : "Thank you. We have your request and will call or write to you."}</Alert>;
  const ask = () => void send({ addressId: draft.address?.id ?? null, items: draft.items, address: "", photos: draft.photos, wish: waits ? wish : null, name, mail, phone, wishes }).then((sent) => {
    if (!sent) return;
    setDone(true);
    onType({ wishes: "" });
  });
  return (
    <Box sx={{ mt: 4, display: "grid", gap: 4 }}>
      <Alert severity="info" sx={{ fontSize: 16 }}>{words}</Alert>
      {waits && <WishField wish={wish} onWish={(to) => onType({ wish: to })} />}
      {field("wishes", waits ? "Anything else" : "What do you need, and when?", { multiline: true, minRows: 2 })}
      {field("name", "Name", { autoComplete: "name" })}
      {field("mail", "Mail", { autoComplete: "email", type: "email" })}
      {field("phone", "Phone", { autoComplete: "tel", type: "tel" })}
      <Button variant="outlined" disabled={busy} onClick={ask} sx={{ height: 52, fontSize: 17 }}>{busy ? "One moment…" : waits ? "Tell me when one opens" : `Ask ${business.name}`}</Button>
    </Box>
  );
}

const times = (): { words: string; from: number; to: number }[] => [
  { words: "Any time", from: 0, to: 1440 }, { words: "Before noon", from: 0, to: 780 }, { words: "Afternoon", from: 720, to: 1080 }, { words: `From ${clock(900)}`, from: 900, to: 1440 },
];

/** Days and times that would suit. */
function WishField({ wish, onWish }: { wish: Wish; onWish: (wish: Wish) => void }) {
  const { weekStart } = useHabits();
  const has = (day: number) => (wish.weekdays & (1 << day)) !== 0;
  const every = wish.weekdays === 127;
  const toggle = (day: number) => onWish({ ...wish, weekdays: every ? 1 << day : wish.weekdays ^ (1 << day) || 127 });
  const row = { display: "flex", gap: 2, flexWrap: "wrap" };
  return (
    <>
      <Box role="group" aria-label="Which days would suit?">
        <Box sx={{ fontWeight: 650, mb: 2 }}>Which days would suit?</Box>
        <Box sx={row}>
          <Pick on={every} onPick={() => onWish({ ...wish, weekdays: 127 })}>Any day</Pick>
          {weekdaysFrom(weekStart).map((day) => <Pick key={day} on={!every && has(day)} onPick={() => toggle(day)}>{weekdayNames[day]!.slice(0, 3)}</Pick>)}
        </Box>
      </Box>
      <Box role="group" aria-label="Which times?">
        <Box sx={{ fontWeight: 650, mb: 2 }}>Which times?</Box>
        <Box sx={row}>{times().map(({ words, from, to }) => <Pick key={words} on={wish.from === from && wish.to === to} onPick={() => onWish({ ...wish, from, to })}>{words}</Pick>)}</Box>
      </Box>
    </>
  );
}
