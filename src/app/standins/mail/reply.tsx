"use client";
import { post } from "@/api/client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";

/** Answers a mail as its reader, or sends it back. */
export function Reply({ file }: { file: string }) {
  const [words, setWords] = useState("");
  const [said, setSaid] = useState("");
  const send = async (how: "answer" | "bounce") => {
    const result = await post("/standins/mail/answer", { file, how, words });
    setSaid(result.ok ? (how === "answer" ? "Answered" : "Sent back") : result.problem.sentence);
    if (result.ok) setWords("");
  };
  return (
    <Box
      component="form"
      onSubmit={(e) => {
        e.preventDefault();
        void send("answer");
      }}
      sx={{ display: "flex", gap: 2, mt: 6, maxWidth: 640, alignItems: "flex-start" }}
    >
      <TextField
        label="Answer as its reader"
        value={words}
        onChange={(e) => setWords(e.target.value)}
        multiline
        sx={{ flex: 1 }}
        helperText={said}
      />
      <Button type="submit" variant="contained" disabled={!words.trim()}>
        Send
      </Button>
      <Button onClick={() => void send("bounce")}>It bounces</Button>
    </Box>
  );
}
