"use client";
import { PhotoField } from "@/ui/photo-field";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";

const empty = { name: "", mail: "", phone: "", words: "" };

/** What is asked, and how we can answer. */
export function QuestionForm() {
  const [draft, setDraft] = useState(empty);
  const [photos, setPhotos] = useState<string[]>([]);
  const [asked, setAsked] = useState(false);
  /** Where many ask today, a code is sent first. */
  const [waits, setWaits] = useState<{ codeFor: string; wrong: boolean } | null>(null);
  const [code, setCode] = useState("");
  const { send, busy, wrong, problem } = useChange("ask-question", { quiet: true });
  const field = (name: keyof typeof empty, label: string, more: object = {}) => (
    <TextField
      label={label}
      value={draft[name]}
      onChange={(e) => setDraft({ ...draft, [name]: e.target.value })}
      error={!!wrong(`/${name}`)}
      helperText={wrong(`/${name}`)}
      {...more}
    />
  );
  if (asked)
    return (
      <Alert severity="success" sx={{ mt: 4 }}>
        Thank you. We have your question, and one of us answers soon.
      </Alert>
    );
  return (
    <Box
      component="form"
      noValidate
      onSubmit={async (e) => {
        e.preventDefault();
        const sent = await send({ ...draft, photos, ...(waits && code && { code, codeFor: waits.codeFor }) });
        if (!sent) return;
        const { codeFor, wrong = false } = sent.value;
        if (codeFor === undefined) return setAsked(true);
        setWaits({ codeFor, wrong });
        setCode("");
      }}
      sx={{ display: "grid", gap: 3, pb: 4 }}
    >
      {field("words", "Your question", { multiline: true, minRows: 3 })}
      {field("name", "Name", { autoComplete: "name" })}
      {field("mail", "Email", { type: "email", autoComplete: "email" })}
      {field("phone", "or phone", { type: "tel", autoComplete: "tel" })}
      <PhotoField tokens={photos} most={4} what="Add a photo" onTokens={setPhotos} />
      {waits && (
        <TextField
          label="Code"
          value={code}
          onChange={(e) => setCode(e.target.value)}
          error={waits.wrong}
          helperText={
            waits.wrong
              ? "This code is not right. Look at the newest message."
              : `Many people are writing today. We have sent a code to ${draft.mail}: enter it here, so that we know we can reach you.`
          }
          slotProps={{ htmlInput: { inputMode: "numeric", autoComplete: "one-time-code", maxLength: 12 } }}
        />
      )}
      {problem && !problem.fields && <Alert severity="error">{problem.sentence}</Alert>}
      <Button type="submit" variant="contained" disabled={busy} sx={{ minHeight: 48 }}>
        Send the question
      </Button>
    </Box>
  );
}
