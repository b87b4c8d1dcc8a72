"use client";
import type { ViewOutput } from "@/api/client";
import type { Language } from "@/core/messages/languages";
import { type Channel, channels } from "@/core/messages/purposes";
import { templateProblems } from "@/core/messages/templates";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useKeptForm } from "@/ui/use-kept-form";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Skeleton from "@mui/material/Skeleton";
import TextField from "@mui/material/TextField";
import { useRef, useState } from "react";
import { inserted, Legend, Preview, type Which, WhichWords } from "./words-preview";

type Setup = ViewOutput<"message-setup">;
type OccasionRow = Setup["occasions"][number];
type Template = ViewOutput<"template">;

/** The words of an occasion, by channel and language. */
export function TemplateEditor({ occasion, setup }: { occasion: OccasionRow; setup: Setup }) {
  const [channel, setChannel] = useState<Channel>(occasion.channels[0]!);
  const [language, setLanguage] = useState<Language>(setup.rules.language);
  const which = { occasion: occasion.occasion, channel, language };
  const { data, problem } = useLive("template", which);
  return (
    <Box component="section" aria-label="Words">
      <WhichWords
        among={channels}
        channel={channel}
        onChannel={setChannel}
        language={language}
        onLanguage={setLanguage}
      />
      {problem && <Alert severity="warning">{problem.sentence}</Alert>}
      {data ? (
        <Words key={JSON.stringify([which, data.words])} which={which} template={data} setup={setup} />
      ) : (
        !problem && <Skeleton variant="rounded" height={360} />
      )}
    </Box>
  );
}

function Words({ which, template, setup }: { which: Which; template: Template; setup: Setup }) {
  const { draft, set, wrong, frame } = useKeptForm({
    operation: "save-template",
    of: `text ${which.occasion} ${which.channel} ${which.language}`,
    from: template.words,
    input: (d) => ({ ...which, ...d }),
    name: () => "Text",
    saved: () => {},
  });
  const [visitId, setVisit] = useState<number | null>(setup.samples[0]?.visitId ?? null);
  const field = useRef<HTMLTextAreaElement>(null);
  const allowed = template.legend.map(({ name }) => name);
  const problems = [...templateProblems(draft.subject, allowed), ...templateProblems(draft.body, allowed)];
  const reset = useChange("reset-template", { then: frame.onDiscard });
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: { md: "minmax(0, 1fr) 380px" }, gap: 6 }}>
      <Box sx={{ display: "grid", gap: 3, alignContent: "start" }}>
        {which.channel === "mail" && (
          <TextField
            label="Subject"
            value={draft.subject}
            onChange={(e) => set({ subject: e.target.value })}
            error={!!wrong("/subject")}
            helperText={wrong("/subject")}
          />
        )}
        <TextField
          label={which.channel === "voice" ? "What is read aloud" : "Text"}
          value={draft.body}
          onChange={(e) => set({ body: e.target.value })}
          inputRef={field}
          multiline
          minRows={which.channel === "mail" ? 12 : 5}
          error={problems.length > 0 || !!wrong("/body")}
          helperText={problems[0] ?? wrong("/body")}
          slotProps={{ formHelperText: { role: problems.length ? "alert" : undefined } }}
        />
        <Legend
          fields={template.legend}
          onInsert={(named) => set({ body: inserted(field.current, draft.body, named) })}
        />
        <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap" }}>
          <Button variant="contained" disabled={frame.busy || problems.length > 0} onClick={frame.onSave}>
            Save
          </Button>
          {template.isOwn && template.starting && (
            <Button disabled={reset.busy} onClick={() => void reset.send(which)}>
              Back to the starting text
            </Button>
          )}
        </Box>
        <SendTest which={which} words={draft} visitId={visitId} disabled={problems.length > 0} />
        <History template={template} onTake={(words) => set(words)} />
      </Box>
      <Preview
        which={which}
        words={draft}
        currency={setup.currency}
        visitId={visitId}
        ok={problems.length === 0}
        partMilli={template.partMilli}
      >
        <TextField
          select
          size="small"
          label="Shown with"
          value={visitId ?? 0}
          onChange={(e) => setVisit(Number(e.target.value) || null)}
        >
          <MenuItem value={0}>a visit that is made up</MenuItem>
          {setup.samples.map((sample) => (
            <MenuItem key={sample.visitId} value={sample.visitId}>
              {sample.words}
            </MenuItem>
          ))}
        </TextField>
      </Preview>
    </Box>
  );
}

/** What was written before, newest first. */
function History({
  template,
  onTake,
}: {
  template: Template;
  onTake: (words: { subject: string; body: string }) => void;
}) {
  if (template.history.length === 0) return null;
  return (
    <Box component="details" sx={{ fontSize: 14.5 }}>
      <summary>What changed and who · {template.history.length}</summary>
      {template.history.map((change) => (
        <Box key={change.id} sx={{ borderTop: `1px solid ${ink.line}`, py: 2 }}>
          <Box sx={{ color: ink.ash }}>
            {new Date(change.at).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}, {change.by}
            {change.words === null && ": back to the starting text"}
          </Box>
          {change.words && (
            <>
              <Box sx={{ whiteSpace: "pre-wrap", my: 1 }}>{change.words.body}</Box>
              <Button size="small" onClick={() => onTake(change.words!)}>
                Take these words
              </Button>
            </>
          )}
        </Box>
      ))}
    </Box>
  );
}

/** Sends the words to oneself, as they stand. */
function SendTest({
  which,
  words,
  visitId,
  disabled,
}: {
  which: Which;
  words: { subject: string; body: string };
  visitId: number | null;
  disabled: boolean;
}) {
  const [to, setTo] = useState("");
  const [sent, setSent] = useState(false);
  const { send, busy, wrong } = useChange("send-test", { then: () => setSent(true) });
  return (
    <Box sx={{ display: "flex", gap: 2, alignItems: "flex-start" }}>
      <TextField
        size="small"
        label={which.channel === "mail" ? "Your email" : "Your phone"}
        value={to}
        onChange={(e) => {
          setTo(e.target.value);
          setSent(false);
        }}
        error={!!(wrong("/to") ?? wrong("/channel") ?? wrong("/body"))}
        helperText={wrong("/to") ?? wrong("/channel") ?? wrong("/body") ?? (sent ? "On its way to you" : undefined)}
      />
      <Button
        variant="outlined"
        disabled={busy || disabled || !to.trim()}
        onClick={() => void send({ ...which, ...words, visitId, to })}
      >
        Send it to me
      </Button>
    </Box>
  );
}
