"use client";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";

/** Shows by a code that an email is one's own: what a booking waits for, or how one's bookings come together. */
export function EnterCode({
  mail,
  token,
  sent: sentAtFirst,
  onRight,
}: {
  mail: string;
  token: string;
  /** A code was sent while booking. */
  sent: boolean;
  onRight: () => void;
}) {
  const [sent, setSent] = useState(sentAtFirst);
  const [code, setCode] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const send = useChange("send-code-by-link", {
    then() {
      setSent(true);
      setWrong(null);
      setCode("");
    },
  });
  const enter = useChange("enter-code-by-link", {
    then: ({ right }) => (right ? onRight() : setWrong("This code is not right. Look at the newest message.")),
  });
  const big = { minHeight: 52, fontSize: 17 };
  return (
    <Box component="section" aria-label="Confirm your email" sx={{ mt: 6, "@media print": { display: "none" } }}>
      {sent ? (
        <Box
          component="form"
          onSubmit={(e) => {
            e.preventDefault();
            void enter.send({ code }, token);
          }}
          sx={{ display: "grid", gap: 3 }}
        >
          <Typography>We have sent a code to {mail}. Enter it here.</Typography>
          <TextField
            label="Code"
            size="medium"
            value={code}
            onChange={(e) => setCode(e.target.value)}
            error={!!wrong}
            helperText={wrong}
            slotProps={{ htmlInput: { inputMode: "numeric", autoComplete: "one-time-code", maxLength: 12 } }}
          />
          <Box sx={{ display: "flex", gap: 2 }}>
            <Button type="submit" variant="contained" disabled={enter.busy || !code.trim()} sx={big}>
              Confirm
            </Button>
            <Button disabled={send.busy} onClick={() => void send.send({}, token)} sx={big}>
              Send another code
            </Button>
          </Box>
        </Box>
      ) : (
        <Typography color="textSecondary">
          Have you booked with us before?{" "}
          <Button size="small" disabled={send.busy} onClick={() => void send.send({}, token)}>
            Confirm your email with a code
          </Button>{" "}
          and your visits come together.
        </Typography>
      )}
    </Box>
  );
}
