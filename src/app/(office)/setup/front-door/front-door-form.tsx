"use client";
import { contrast, mended, textContrast } from "@/core/look/contrast";
import { lookOf, ownLook } from "@/core/look/front-door";
import { Columns, Field, FormFrame } from "@/ui/form-parts";
import { ImageField } from "@/ui/image-field";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useKeptForm } from "@/ui/use-kept-form";
import Add from "@mui/icons-material/Add";
import Close from "@mui/icons-material/Close";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import { type ReactNode, useEffect, useRef, useState } from "react";
import type { SetupData } from "../data";
import { QuestionsEditor } from "../services/questions-editor";

type Draft = SetupData["frontDoor"];

/** The booking page: what it says, asks and shows; beside it the page itself, with what is being typed. */
export function FrontDoorForm({ data, saved }: { data: SetupData; saved: () => void }) {
  const { draft, set, wrong, round, frame } = useKeptForm({
    operation: "save-front-door",
    of: "front door",
    from: data.frontDoor,
    input: (d) => d,
    name: () => "The front door",
    saved,
  });
  const toggle = (name: "paysAtDoor" | "showsContact" | "takesWishes", words: string) => (
    <FormControlLabel
      control={<Switch checked={draft[name]} onChange={(e) => set({ [name]: e.target.checked })} />}
      label={words}
    />
  );
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr) 400px", gap: 6, alignItems: "start" }}>
      <FormFrame
        title="Front door"
        note="When one may move and cancel stands in Windows, your terms in Business, prices and fees with each service."
        key={round}
        {...frame}
      >
        <Field
          label="Welcome"
          multiline
          minRows={2}
          value={draft.welcome}
          onChange={(e) => set({ welcome: e.target.value })}
          wrong={wrong("/welcome")}
          helperText="Before the first question"
        />
        <ImageField
          label="Picture at the top"
          purpose="door"
          token={draft.picture}
          onToken={(picture) => set({ picture })}
        />
        <Columns>
          <ColourField
            label="Buttons and what is chosen"
            value={draft.accent}
            own={ownLook.accent}
            against={lookOf(draft).ground}
            onValue={(accent) => set({ accent })}
            wrong={wrong("/accent")}
          />
          <ColourField
            label="Ground"
            value={draft.ground}
            own={ownLook.ground}
            against={ownLook.text}
            onValue={(ground) => set({ ground })}
            wrong={wrong("/ground")}
          />
        </Columns>
        <Part title="Questions and answers" note="What people ask before they book.">
          <Rows
            rows={draft.answers}
            fresh={{ question: "", answer: "" }}
            add="Answer"
            onRows={(answers) => set({ answers })}
          >
            {(row, change, i) => (
              <Box sx={{ flex: 1, display: "grid", gap: 2 }}>
                <Field
                  label={`Question ${i + 1}`}
                  value={row.question}
                  onChange={(e) => change({ ...row, question: e.target.value })}
                  wrong={wrong(`/answers/${i}/question`)}
                />
                <Field
                  label={`Answer ${i + 1}`}
                  multiline
                  value={row.answer}
                  onChange={(e) => change({ ...row, answer: e.target.value })}
                  wrong={wrong(`/answers/${i}/answer`)}
                />
              </Box>
            )}
          </Rows>
        </Part>
        <Part
          title="What you ask of everybody"
          note="Beside name, email and phone. Answered with words, a choice, a yes or no, or a tick."
        >
          <QuestionsEditor
            questions={draft.fields}
            onQuestions={(fields) => set({ fields })}
            data={data}
            wrong={(path) => wrong(path.replace("/questions", "/fields"))}
            plain
          />
        </Part>
        <Part title="Paying and contact">
          {toggle("paysAtDoor", "Customers may pay at the door, in cash or by card")}
          {toggle("showsContact", "Phone and email are shown")}
          {toggle("takesWishes", "Whom no window suits may leave a wish")}
        </Part>
        <Part title="When they have booked">
          <Field
            label="Words"
            multiline
            minRows={2}
            value={draft.doneWords}
            onChange={(e) => set({ doneWords: e.target.value })}
            wrong={wrong("/doneWords")}
            helperText="Above their visit"
          />
          <Field
            label="Or an address of yours to go to"
            value={draft.doneAddress}
            onChange={(e) => set({ doneAddress: e.target.value })}
            wrong={wrong("/doneAddress")}
            helperText="Such as https://marrowick.example/thank-you. Their own link comes by email."
          />
        </Part>
        <Part
          title="Who hears of bookings"
          note="Of new ones, of requests, and of what customers change. As many as you like, each by email or by text."
        >
          <Rows
            rows={draft.tells}
            fresh={{ way: "mail" as const, to: "" }}
            add="Somebody"
            onRows={(tells) => set({ tells })}
          >
            {(row, change, i) => (
              <>
                <TextField
                  select
                  label="By"
                  value={row.way}
                  onChange={(e) => change({ ...row, way: e.target.value as "mail" | "text" })}
                  sx={{ width: 110 }}
                >
                  <MenuItem value="mail">email</MenuItem>
                  <MenuItem value="text">text</MenuItem>
                </TextField>
                <Field
                  label={row.way === "mail" ? "Email" : "Phone"}
                  value={row.to}
                  onChange={(e) => change({ ...row, to: e.target.value })}
                  wrong={wrong(`/tells/${i}/to`) ?? wrong(`/tells/${i}`)}
                />
              </>
            )}
          </Rows>
        </Part>
        <Part
          title="Your own sites"
          note="On these your front door may stand in a frame; the code for it is in Sharing."
        >
          <Autocomplete
            multiple
            freeSolo
            options={[] as string[]}
            value={draft.sites}
            onChange={(_, sites) => set({ sites })}
            renderInput={(params) => (
              <TextField
                {...params}
                label="Sites"
                error={draft.sites.some((_, i) => wrong(`/sites/${i}`))}
                helperText={
                  draft.sites.map((_, i) => wrong(`/sites/${i}`)).find(Boolean) ??
                  "Such as https://marrowick.example; Enter adds it"
                }
              />
            )}
          />
        </Part>
      </FormFrame>
      <PagePreview draft={draft} />
    </Box>
  );
}

/** A colour, with what it lacks in contrast said at once and mended by one press. */
function ColourField({
  label,
  value,
  own,
  against,
  onValue,
  wrong,
}: {
  label: string;
  value: string;
  own: string;
  against: string;
  onValue: (colour: string) => void;
  wrong?: string;
}) {
  const colour = value || own;
  const readable = contrast(colour, against) >= textContrast;
  return (
    <Box>
      <TextField
        type="color"
        label={label}
        value={colour}
        onChange={(e) => onValue(e.target.value)}
        error={!readable || !!wrong}
        helperText={readable ? wrong : "Words could not be read like this."}
      />
      <Box sx={{ display: "flex", gap: 2 }}>
        {!readable && (
          <Button size="small" onClick={() => onValue(mended(colour, against))}>
            Make it readable
          </Button>
        )}
        {value && (
          <Button size="small" onClick={() => onValue("")}>
            As it was made
          </Button>
        )}
      </Box>
    </Box>
  );
}

const Part = ({ title, note, children }: { title: string; note?: string; children: ReactNode }) => (
  <Box
    component="section"
    aria-label={title}
    sx={{ borderTop: `1px solid ${ink.line}`, pt: 4, display: "grid", gap: 3 }}
  >
    <Box>
      <Box sx={{ fontWeight: 650 }}>{title}</Box>
      {note && <Box sx={{ color: ink.ash, fontSize: 14 }}>{note}</Box>}
    </Box>
    {children}
  </Box>
);

/** A list of entries that can be added to and taken from. */
function Rows<T>({
  rows,
  fresh,
  add,
  onRows,
  children,
}: {
  rows: T[];
  fresh: T;
  add: string;
  onRows: (rows: T[]) => void;
  children: (row: T, change: (row: T) => void, i: number) => ReactNode;
}) {
  return (
    <>
      {rows.map((row, i) => (
        <Box key={i} sx={{ display: "flex", gap: 2, alignItems: "flex-start" }}>
          {children(row, (next) => onRows(rows.map((r, k) => (k === i ? next : r))), i)}
          <IconButton
            aria-label={`Take away: ${add.toLowerCase()} ${i + 1}`}
            onClick={() => onRows(rows.filter((_, k) => k !== i))}
          >
            <Close fontSize="small" />
          </IconButton>
        </Box>
      ))}
      <Box>
        <Button startIcon={<Add />} onClick={() => onRows([...rows, fresh])}>
          {add}
        </Button>
      </Box>
    </>
  );
}

/** The page itself in a frame, as wide as a phone or as a desk. */
function PagePreview({ draft }: { draft: Draft }) {
  const frame = useRef<HTMLIFrameElement>(null);
  const [wide, setWide] = useState(false);
  const [ready, setReady] = useState(0);
  const [asked, setAsked] = useState(draft);
  useEffect(() => {
    const timer = setTimeout(() => setAsked(draft), 400);
    return () => clearTimeout(timer);
  }, [draft]);
  // What cannot be saved as it stands leaves the preview as it was.
  const { data } = useLive("preview-front-door", asked);
  const [shown, setShown] = useState(data);
  if (data && data !== shown) setShown(data);
  useEffect(() => {
    const onMessage = (event: MessageEvent) => {
      if (
        event.source === frame.current?.contentWindow &&
        (event.data as { hogarPreviewReady?: boolean } | null)?.hogarPreviewReady
      )
        setReady((n) => n + 1);
    };
    window.addEventListener("message", onMessage);
    return () => window.removeEventListener("message", onMessage);
  }, []);
  useEffect(() => {
    // The frame may have been ready before this was: then it hears of the first change, otherwise of its own word.
    if (shown) frame.current?.contentWindow?.postMessage({ hogarPreview: shown }, window.location.origin);
  }, [shown, ready]);
  const [width, scale] = wide ? [1280, 400 / 1280] : [390, 1];
  return (
    <Box component="aside" aria-label="Preview" sx={{ position: "sticky", top: 16 }}>
      <Box sx={{ display: "flex", gap: 2, mb: 2 }}>
        <Button size="small" variant={wide ? "text" : "outlined"} aria-pressed={!wide} onClick={() => setWide(false)}>
          Phone
        </Button>
        <Button size="small" variant={wide ? "outlined" : "text"} aria-pressed={wide} onClick={() => setWide(true)}>
          Desk
        </Button>
      </Box>
      <Box
        sx={{
          width: width * scale,
          height: 690,
          border: `1px solid ${ink.line}`,
          borderRadius: "6px",
          overflow: "hidden",
        }}
      >
        <Box
          component="iframe"
          ref={frame}
          title="The front door as it is being set up"
          src="/book/preview"
          sx={{ width, height: 690 / scale, border: 0, transform: `scale(${scale})`, transformOrigin: "0 0" }}
        />
      </Box>
    </Box>
  );
}
