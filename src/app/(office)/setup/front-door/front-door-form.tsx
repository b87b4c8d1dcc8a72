"use client";
import { lookOf, ownLook } from "@/core/look/front-door";
import { FormFrame } from "@/ui/form-frame";
import { Columns, Field } from "@/ui/form-parts";
import { ImageField } from "@/ui/image-field";
import { useKeptForm } from "@/ui/use-kept-form";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import type { SetupData } from "../data";
import { QuestionsEditor } from "../services/questions-editor";
import { ColourField } from "./colour-field";
import { PagePreview } from "./page-preview";
import { Part, Rows } from "./rows-field";

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
