"use client";
import { ask, type ViewOutput } from "@/api/client";
import { languageNames, languages, type Language } from "@/core/messages/languages";
import { type Channel, channelNames, channels } from "@/core/messages/purposes";
import { cheaperSpelling, segmentsOf } from "@/core/messages/segments";
import { templateProblems } from "@/core/messages/templates";
import { counted } from "@/core/words";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useKeptForm } from "@/ui/use-kept-form";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Chip from "@mui/material/Chip";
import MenuItem from "@mui/material/MenuItem";
import Skeleton from "@mui/material/Skeleton";
import Tab from "@mui/material/Tab";
import Tabs from "@mui/material/Tabs";
import TextField from "@mui/material/TextField";
import Tooltip from "@mui/material/Tooltip";
import Typography from "@mui/material/Typography";
import { useEffect, useRef, useState } from "react";

type Setup = ViewOutput<"message-setup">;
type OccasionRow = Setup["occasions"][number];
type Template = ViewOutput<"template">;
interface Which {
  occasion: OccasionRow["occasion"];
  channel: Channel;
  language: Language;
}

/** The words of an occasion, by channel and language. */
export function TemplateEditor({ occasion, setup }: { occasion: OccasionRow; setup: Setup }) {
  const [channel, setChannel] = useState<Channel>(occasion.channels[0]!);
  const [language, setLanguage] = useState<Language>(setup.rules.language);
  const which = { occasion: occasion.occasion, channel, language };
  const { data, problem } = useLive("template", which);
  return (
    <Box component="section" aria-label="Words">
      <Box sx={{ display: "flex", gap: 4, alignItems: "center", flexWrap: "wrap", mb: 3 }}>
        <Tabs value={channel} onChange={(_, next: Channel) => setChannel(next)} aria-label="Channel">
          {channels.map((one) => (
            <Tab key={one} value={one} label={channelNames[one]} />
          ))}
        </Tabs>
        <TextField
          select
          size="small"
          label="Language"
          value={language}
          onChange={(e) => setLanguage(e.target.value as Language)}
          sx={{ width: 140 }}
        >
          {languages.map((one) => (
            <MenuItem key={one} value={one}>
              {languageNames[one]}
            </MenuItem>
          ))}
        </TextField>
      </Box>
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
  const insert = (name: string, of: readonly string[], mayMiss: boolean) => {
    const words = of.length
      ? `{{#${name}}} {{${of[0]}}}{{/${name}}}`
      : mayMiss
        ? `{{#${name}}}{{${name}}}{{/${name}}}`
        : `{{${name}}}`;
    const { selectionStart = draft.body.length, selectionEnd = draft.body.length } = field.current ?? {};
    set({ body: draft.body.slice(0, selectionStart) + words + draft.body.slice(selectionEnd) });
    field.current?.focus();
  };
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
        <Legend template={template} onInsert={insert} />
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
        setup={setup}
        visitId={visitId}
        onVisit={setVisit}
        ok={problems.length === 0}
        partMilli={template.partMilli}
      />
    </Box>
  );
}

/** Fields, to be clicked into the text. */
const Legend = ({
  template,
  onInsert,
}: {
  template: Template;
  onInsert: (name: string, of: readonly string[], mayMiss: boolean) => void;
}) => (
  <Box role="group" aria-label="Fields" sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
    {template.legend.map(({ name, about, mayMiss, of }) => (
      <Tooltip
        key={name}
        title={`${about}${mayMiss ? ". It may be missing, and comes with its condition" : ""}${of.length ? `. Of each: ${of.join(", ")}` : ""}`}
      >
        <Chip size="small" variant="outlined" label={name} onClick={() => onInsert(name, of, mayMiss)} />
      </Tooltip>
    ))}
  </Box>
);

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

interface Shown {
  subject: string;
  text: string;
  html: string;
}

const pauseMs = 300;

/** The words as a customer gets them, of a real visit: on a phone and as an email, beside each other. */
function Preview({
  which,
  words,
  setup,
  visitId,
  onVisit,
  ok,
  partMilli,
}: {
  which: Which;
  words: { subject: string; body: string };
  setup: Setup;
  visitId: number | null;
  onVisit: (id: number | null) => void;
  ok: boolean;
  partMilli: number;
}) {
  const [shown, setShown] = useState<Shown | null>(null);
  const { subject, body } = words;
  const { occasion, channel, language } = which;
  useEffect(() => {
    if (!ok || !body.trim()) return;
    let isOver = false;
    const timer = setTimeout(async () => {
      const [result, { mailHtml }] = await Promise.all([
        ask("preview-message", { occasion, channel, language, subject, body, visitId }),
        import("@/gateways/mail-html"),
      ]);
      if (isOver || !result.ok) return;
      const { mail, ...shown } = result.value;
      setShown({ ...shown, html: mailHtml(mail) });
    }, pauseMs);
    return () => {
      isOver = true;
      clearTimeout(timer);
    };
  }, [occasion, channel, language, subject, body, visitId, ok]);
  return (
    <Box role="group" aria-label="Preview" sx={{ display: "grid", gap: 3, alignContent: "start" }}>
      <TextField
        select
        size="small"
        label="Shown with"
        value={visitId ?? 0}
        onChange={(e) => onVisit(Number(e.target.value) || null)}
      >
        <MenuItem value={0}>a visit that is made up</MenuItem>
        {setup.samples.map((sample) => (
          <MenuItem key={sample.visitId} value={sample.visitId}>
            {sample.words}
          </MenuItem>
        ))}
      </TextField>
      {shown && (
        <>
          <Box
            sx={{ border: `1px solid ${ink.line}`, borderRadius: "22px", bgcolor: ink.plaster, p: 4, maxWidth: 300 }}
          >
            <Box sx={{ color: ink.ash, fontSize: 12.5, textAlign: "center", mb: 2 }}>on a phone</Box>
            <Box
              data-testid="phone"
              sx={{
                bgcolor: "#fff",
                borderRadius: "12px",
                p: 3,
                whiteSpace: "pre-wrap",
                overflowWrap: "anywhere",
                fontSize: 14.5,
              }}
            >
              {channel === "mail" && <b>{shown.subject}</b>}
              {channel === "mail" ? `\n${shown.text.slice(0, 160)}…` : shown.text}
            </Box>
            {channel === "text" && <Cost text={shown.text} partMilli={partMilli} currency={setup.currency} />}
          </Box>
          {channel === "mail" && (
            <Box>
              <Box sx={{ color: ink.ash, fontSize: 12.5, mb: 1 }}>as an email</Box>
              <Box
                component="iframe"
                title="The email"
                sandbox=""
                srcDoc={shown.html}
                sx={{
                  width: "100%",
                  height: 460,
                  border: `1px solid ${ink.line}`,
                  borderRadius: "6px",
                  bgcolor: "#fff",
                }}
              />
            </Box>
          )}
        </>
      )}
      {!shown && <Typography color="textSecondary">The preview comes as soon as the text is in order.</Typography>}
    </Box>
  );
}

/** In how many parts a text goes out, what that costs, and what makes it dear. */
function Cost({ text, partMilli, currency }: { text: string; partMilli: number; currency: string }) {
  const { parts, left, dear, alphabet } = segmentsOf(text);
  const other = dear.length ? cheaperSpelling(text) : text;
  const saved = dear.length ? parts - segmentsOf(other).parts : 0;
  return (
    <Box sx={{ color: ink.ash, fontSize: 13, mt: 2 }} aria-label="Cost">
      {counted(parts, "part")}, {left} {left === 1 ? "letter" : "letters"} left
      {partMilli > 0 && `, ${((parts * partMilli) / 1000).toFixed(3)} ${currency}`}
      {dear.length > 0 && (
        <Box sx={{ color: ink.ink }}>
          {dear.slice(0, 6).join(" ")} make it dear ({alphabet})
          {saved > 0 &&
            `: with ${[...new Set(dear.map(cheaperSpelling))].slice(0, 6).join(" ")} it is ${counted(parts - saved, "part")}`}
        </Box>
      )}
    </Box>
  );
}
