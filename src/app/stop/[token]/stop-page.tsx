"use client";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";

/** Ends messages of the kind that led here, and takes that back. */
export function StopPage({ token }: { token: string }) {
  const [state, setState] = useState<"asked" | "stopped" | "goes on">("asked");
  const { send, busy } = useChange("stop-by-message");
  const set = async (stop: boolean) => {
    if (await send({ token, stop })) setState(stop ? "stopped" : "goes on");
  };
  return (
    <Box component="main" sx={{ p: 6, maxWidth: 480, mx: "auto", fontSize: 17, display: "grid", gap: 4 }}>
      <Typography variant="h1">Messages from us</Typography>
      {state === "asked" && <Typography>Stop these messages? Your bookings stay as they are.</Typography>}
      {state !== "asked" && (
        <Alert severity={state === "stopped" ? "success" : "info"}>
          {state === "stopped" ? "Done: you will get no more of these." : "You will get them again."}
        </Alert>
      )}
      <Button variant="contained" disabled={busy} onClick={() => void set(state !== "stopped")} sx={{ minHeight: 48 }}>
        {state === "stopped" ? "I want them after all" : "Stop these messages"}
      </Button>
    </Box>
  );
}
