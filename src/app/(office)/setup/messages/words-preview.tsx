"use client";
import { ask, type ViewOutput } from "@/api/client";
import { languageNames, languages, type Language } from "@/core/messages/languages";
import { type Channel, channelNames } from "@/core/messages/purposes";
import { cheaperSpelling, segmentsOf } from "@/core/messages/segments";
import { counted } from "@/core/words";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Chip from "@mui/material/Chip";
import MenuItem from "@mui/material/MenuItem";
import Tab from "@mui/material/Tab";
import Tabs from "@mui/material/Tabs";
import TextField from "@mui/material/TextField";
import Tooltip from "@mui/material/Tooltip";
import Typography from "@mui/material/Typography";
import { type ReactNode, useEffect, useState } from "react";

type Template = ViewOutput<"template">;

/** Words of which occasion, on which channel and in which language. */
export interface Which {
  occasion: ViewOutput<"message-setup">["occasions"][number]["occasion"];
  channel: Channel;
  language: Language;
}

/** Which words are looked at: those of a channel, in a language. */
export function WhichWords<C extends Channel>({
  among,
  channel,
  onChannel,
  language,
  onLanguage,
}: {
  among: readonly C[];
  channel: C;
  onChannel: (channel: C) => void;
  language: Language;
  onLanguage: (language: Language) => void;
}) {
  return (
    <Box sx={{ display: "flex", gap: 4, alignItems: "center", flexWrap: "wrap", mb: 3 }}>
      <Tabs value={channel} onChange={(_, next: C) => onChannel(next)} aria-label="Channel">
        {among.map((one) => (
          <Tab key={one} value={one} label={channelNames[one]} />
        ))}
      </Tabs>
      <TextField
        select
        size="small"
        label="Language"
        value={language}
        onChange={(e) => onLanguage(e.target.value as Language)}
        sx={{ width: 140 }}
      >
        {languages.map((one) => (
          <MenuItem key={one} value={one}>
            {languageNames[one]}
          </MenuItem>
        ))}
      </TextField>
    </Box>
  );
}

/** Fields, to be clicked into the text. */
export const Legend = ({
  fields,
  onInsert,
}: {
  fields: Template["legend"];
  /** The words that name the field, in its condition where it may be missing. */
  onInsert: (words: string) => void;
}) => (
  <Box role="group" aria-label="Fields" sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
    {fields.map(({ name, about, mayMiss, of }) => (
      <Tooltip
        key={name}
        title={`${about}${mayMiss ? ". It may be missing, and comes with its condition" : ""}${of.length ? `. Of each: ${of.join(", ")}` : ""}`}
      >
        <Chip size="small" variant="outlined" label={name} onClick={() => onInsert(namedBy(name, of, mayMiss))} />
      </Tooltip>
    ))}
  </Box>
);

const namedBy = (name: string, of: readonly string[], mayMiss: boolean): string =>
  of.length ? `{{#${name}}} {{${of[0]}}}{{/${name}}}` : mayMiss ? `{{#${name}}}{{${name}}}{{/${name}}}` : `{{${name}}}`;

/** Words put into a field where its cursor stands; the whole text as it is then. */
export function inserted(field: HTMLTextAreaElement | null, body: string, words: string): string {
  const { selectionStart = body.length, selectionEnd = body.length } = field ?? {};
  field?.focus();
  return body.slice(0, selectionStart) + words + body.slice(selectionEnd);
}

interface Shown {
  subject: string;
  text: string;
  html: string;
}

const pauseMs = 300;

/** The words as a customer gets them, of a real visit where one is chosen: on a phone and as an email, beside each other. */
export function Preview({
  which,
  words,
  currency,
  visitId,
  ok,
  partMilli,
  children,
}: {
  which: Which;
  words: { subject: string; body: string };
  currency: string;
  visitId: number | null;
  /** Whether they are in order. */
  ok: boolean;
  partMilli: number;
  /** What it is shown with. */
  children?: ReactNode;
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
      {children}
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
            {channel === "text" && <Cost text={shown.text} partMilli={partMilli} currency={currency} />}
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
