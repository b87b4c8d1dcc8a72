"use client";
import { post } from "@/api/client";
import type { StandinCall } from "@/gateways/voice-standin";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useRouter } from "next/navigation";
import { useState } from "react";

export function Calls({ calls }: { calls: StandinCall[] }) {
  const router = useRouter();
  const [from, setFrom] = useState("+1 555 0142");
  const [words, setWords] = useState("");
  const send = async (path: string, body: object) => {
    await post(path, body);
    router.refresh();
  };
  const speak = ({ words: said, language }: StandinCall) => {
    const speech = new SpeechSynthesisUtterance(said);
    speech.lang = language;
    window.speechSynthesis.speak(speech);
  };
  return (
    <Box component="main" sx={{ p: 6, maxWidth: 760, mx: "auto", display: "grid", gap: 4 }}>
      <Typography variant="h1">Test phone: calls</Typography>
      <Box
        component="form"
        onSubmit={(e) => {
          e.preventDefault();
          void send("/standins/calls/leave", { from, words });
        }}
        sx={{ display: "flex", gap: 2, flexWrap: "wrap", alignItems: "center" }}
      >
        <TextField size="small" label="Call the business from" value={from} onChange={(e) => setFrom(e.target.value)} />
        <TextField
          size="small"
          label="Say to the machine"
          value={words}
          onChange={(e) => setWords(e.target.value)}
          sx={{ flex: 1, minWidth: 200 }}
        />
        <Button type="submit" variant="contained" disabled={!from.trim()}>
          Leave a message
        </Button>
      </Box>
      {calls.length === 0 && <Typography>Nobody has been called yet.</Typography>}
      {calls.map((call) => (
        <Box
          key={call.key}
          role="group"
          aria-label={`Call to ${call.number}`}
          sx={{ borderTop: `1px solid ${ink.line}`, pt: 3 }}
        >
          <b>{call.number}</b> {call.state === "answered" && call.pressed ? `pressed ${call.pressed}` : call.state}
          <Box sx={{ my: 2 }}>“{call.words}”</Box>
          <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap" }}>
            <Button size="small" onClick={() => speak(call)}>
              Hear it
            </Button>
            {call.state === "rings" && (
              <>
                <Button
                  size="small"
                  variant="contained"
                  onClick={() => void send("/standins/calls/end", { key: call.key, pressed: "1" })}
                >
                  Press 1
                </Button>
                <Button
                  size="small"
                  variant="outlined"
                  onClick={() => void send("/standins/calls/end", { key: call.key, pressed: "2" })}
                >
                  Press 2
                </Button>
                <Button
                  size="small"
                  variant="outlined"
                  onClick={() => void send("/standins/calls/end", { key: call.key, pressed: "" })}
                >
                  Listen and hang up
                </Button>
                <Button size="small" onClick={() => void send("/standins/calls/end", { key: call.key, pressed: null })}>
                  Let it ring
                </Button>
              </>
            )}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
