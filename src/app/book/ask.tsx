"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { useChange } from "@/ui/use-change";
import type { Draft } from "./draft";
import type { Business } from "./front-door";

/** What cannot be booked as it stands: one may ask, and a person answers. */
export function Ask({ draft, business, words }: { draft: Draft; business: Business; words: string }) {
  const [typed, setTyped] = useState({ name: draft.name, mail: draft.mail, phone: draft.phone, wishes: "" });
  const { send, busy, wrong } = useChange("make-request");
  const [done, setDone] = useState(false);
  const field = (name: keyof typeof typed, label: string, more: object = {}) => <TextField label={label} size="medium" value={typed[name]} onChange={(e) => setTyped({ ...typed, [name]: e.target.value })} error={!!wrong(`/${name}`)} helperText={wrong(`/${name}`)} {...more} />;
  if (done) return <Alert severity="success" role="status" sx={{ mt: 4, fontSize: 16 }}>Thank you. We have your request and will call or write to you.</Alert>;
  return (
    <Box sx={{ mt: 4, display: "grid", gap: 4 }}>
      <Alert severity="info" sx={{ fontSize: 16 }}>{words}</Alert>
      {field("wishes", "What do you need, and when?", { multiline: true, minRows: 2 })}
      {field("name", "Name", { autoComplete: "name" })}
      {field("mail", "Mail", { autoComplete: "email", type: "email" })}
      {field("phone", "Phone", { autoComplete: "tel", type: "tel" })}
      <Button variant="outlined" disabled={busy} onClick={() => void send({ addressId: draft.address?.id ?? null, serviceId: draft.items[0]?.serviceId ?? null, address: "", ...typed }).then((sent) => setDone(sent !== null))} sx={{ height: 52, fontSize: 17 }}>{busy ? "One moment…" : `Ask ${business.name}`}</Button>
    </Box>
  );
}
