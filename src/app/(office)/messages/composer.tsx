"use client";
import { type Channel, channelNames } from "@/core/messages/purposes";
import { segmentsOf } from "@/core/messages/segments";
import { counted } from "@/core/words";
import { PhotoField } from "@/ui/photo-field";
import { upper } from "@/core/words";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useKeys } from "@/ui/use-keys";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useEffect, useId, useRef, useState } from "react";
import { useOffice } from "../office-context";
import type { Thread } from "./data";

type Way = Channel | "note";

/** Writes to the other end, or a note for inside. What is typed stays until it is sent. Ctrl+Enter sends. */
export function Composer({ thread }: { thread: Thread }) {
  const { person } = useOffice();
  const kept = `hogar set-up answer ${thread.id}`;
  const [body, setBody] = useState("");
  const [way, setWay] = useState<Way>(firstWay(thread));
  const [subject, setSubject] = useState("");
  const [photos, setPhotos] = useState<string[]>([]);
  const [documents, setDocuments] = useState<{ token: string; name: string }[]>([]);
  const [attaching, setAttaching] = useState(false);
  const [nth, setNth] = useState(0);
  const field = useRef<HTMLTextAreaElement>(null);
  const form = useId();
  useEffect(() => setBody(localStorage.getItem(kept) ?? ""), [kept]);
  const type = (words: string) => {
    setBody(words);
    if (words) localStorage.setItem(kept, words);
    else localStorage.removeItem(kept);
  };
  const sent = () => {
    type("");
    setSubject("");
    setPhotos([]);
    setDocuments([]);
    setAttaching(false);
    setNth(nth + 1);
    // Single keys count again as soon as nobody is typing.
    field.current?.blur();
  };
  const write = useChange("write-by-hand", { then: sent });
  const note = useChange("write-note", { then: sent });
  const busy = write.busy || note.busy;
  const wrong = Object.values((way === "note" ? note.problem : write.problem)?.fields ?? {})[0];
  const send = () => {
    if (!body.trim() || busy) return;
    if (way === "note") return void note.send({ threadId: thread.id, visitId: null, words: body });
    void write.send({
      threadId: thread.id,
      channel: way,
      subject: way === "mail" ? subject || `${thread.who.name}` : "",
      body,
      photos,
      documents: documents.map(({ token }) => token),
      key: `${thread.id} ${form} ${nth} ${Date.now()}`.slice(0, 60),
    });
  };
  useKeys({ r: () => field.current?.focus() });
  const mayNote = person.permissions.includes("notes.see");
  if (thread.channels.length === 0 && !mayNote)
    return <Box sx={{ p: 6, color: ink.ash }}>There is no address of theirs to write to.</Box>;
  return (
    <Box sx={{ px: 6, pb: 4, pt: 2, borderTop: `1px solid ${ink.line}`, display: "grid", gap: 2 }}>
      {way !== "note" && (
        <Box role="group" aria-label="Words to begin with" sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
          {thread.starters
            .filter(({ words }) => thread.who.isKnown || !words.includes("{{"))
            .map(({ name, words }) => (
              <Button
                key={name}
                size="small"
                variant="outlined"
                onClick={() => {
                  type(body ? `${body}\n${words}` : words);
                  field.current?.focus();
                }}
              >
                {name}
              </Button>
            ))}
          {way === "mail" && (
            <Button size="small" onClick={() => setAttaching(!attaching)} aria-expanded={attaching}>
              Attach…
            </Button>
          )}
        </Box>
      )}
      {attaching && way === "mail" && (
        <Attach photos={photos} onPhotos={setPhotos} documents={documents} onDocuments={setDocuments} />
      )}
      {thread.notReached.length > 0 && (
        <Box sx={{ color: ink.ember, fontSize: 13.5 }}>
          {thread.notReached.map(({ channel, words }) => (
            <div key={channel}>
              {upper(channelNames[channel])}: {words}.
            </div>
          ))}
        </Box>
      )}
      <Box sx={{ display: "flex", gap: 2, alignItems: "flex-end" }}>
        <TextField
          select
          size="small"
          label="By"
          value={way}
          onChange={(e) => setWay(e.target.value as Way)}
          sx={{ width: 130, flex: "none" }}
        >
          {thread.channels.map((channel) => (
            <MenuItem key={channel} value={channel}>
              {channelNames[channel]}
            </MenuItem>
          ))}
          {mayNote && <MenuItem value="note">note inside</MenuItem>}
        </TextField>
        <Box sx={{ flex: 1, display: "grid", gap: 2 }}>
          {way === "mail" && (
            <TextField size="small" label="Subject" value={subject} onChange={(e) => setSubject(e.target.value)} />
          )}
          <TextField
            multiline
            maxRows={8}
            label={way === "note" ? "Note for inside" : `Write to ${thread.who.name}`}
            value={body}
            inputRef={field}
            onChange={(e) => type(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === "Enter" && (e.ctrlKey || e.metaKey)) send();
            }}
            error={!!wrong}
            helperText={wrong ?? (way === "text" && body ? textWords(body) : undefined)}
          />
        </Box>
        <Button variant="contained" disabled={busy || !body.trim()} onClick={send} sx={{ height: 44 }}>
          {way === "note" ? "Note it" : "Send"}
        </Button>
      </Box>
    </Box>
  );
}

/** As they were written to, or wrote last. */
const firstWay = (thread: Thread): Way => {
  const last = thread.entries.findLast((entry) => entry.kind === "theirs");
  const wished = last?.channel === "mail" || (last?.channel === "front door" && thread.who.mail) ? "mail" : "text";
  return thread.channels.includes(wished) ? wished : (thread.channels[0] ?? "note");
};

const textWords = (body: string): string => {
  const { parts, left, dear } = segmentsOf(body.replace("{{my_link}}", "https://hogar.example/s/4f-h7Kd2mQx"));
  return `${counted(parts, "part")}, ${left} letters left${dear.length ? `; ${dear.slice(0, 4).join(" ")} make it dear` : ""}`;
};

/** Photos, and a PDF. */
function Attach({
  photos,
  onPhotos,
  documents,
  onDocuments,
}: {
  photos: string[];
  onPhotos: (tokens: string[]) => void;
  documents: { token: string; name: string }[];
  onDocuments: (documents: { token: string; name: string }[]) => void;
}) {
  const [wrong, setWrong] = useState("");
  const take = async (file: File | undefined) => {
    if (!file) return;
    const response = await fetch(`/api/documents?name=${encodeURIComponent(file.name)}`, {
      method: "POST",
      headers: { "content-type": "application/pdf" },
      body: file,
    });
    const answer = (await response.json()) as {
      ok: boolean;
      value: { token: string; name: string };
      problem?: { sentence: string };
    };
    if (answer.ok) onDocuments([...documents, answer.value]);
    setWrong(answer.ok ? "" : (answer.problem?.sentence ?? ""));
  };
  return (
    <Box sx={{ display: "grid", gap: 2 }}>
      <PhotoField tokens={photos} most={6} what="Add a photo" onTokens={onPhotos} />
      {documents.map(({ token, name }) => (
        <Box key={token}>
          {name}{" "}
          <Button size="small" onClick={() => onDocuments(documents.filter((one) => one.token !== token))}>
            Take it off
          </Button>
        </Box>
      ))}
      <Button component="label" size="small" variant="outlined" sx={{ justifySelf: "start" }}>
        Add a PDF
        <input type="file" accept="application/pdf" hidden onChange={(e) => void take(e.target.files?.[0])} />
      </Button>
      {wrong && (
        <Box role="alert" sx={{ color: ink.ember }}>
          {wrong}
        </Box>
      )}
    </Box>
  );
}
