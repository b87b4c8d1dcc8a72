"use client";
import { languageNames, languages } from "@/core/messages/languages";
import { durationWords } from "@/core/time/words";
import { counted } from "@/core/words";
import { FormFrame, promisedNote, without } from "@/ui/form-frame";
import { Columns, Field, WholeField } from "@/ui/form-parts";
import { type WorkPlace, workPlaces, workPlaceWords } from "@/core/visits/work-place";
import { FormSection } from "@/ui/form-sections";
import { ImageField } from "@/ui/image-field";
import { useChange } from "@/ui/use-change";
import { useKeptForm } from "@/ui/use-kept-form";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import { useSnackbar } from "notistack";
import type { ServiceDraft, SetupData } from "../data";
import { HueField } from "../team/hue-field";
import { LevelField } from "../windows/named-field";
import { ChecklistField } from "./checklist-field";
import { ComesBack } from "./comes-back";
import { OwnLink } from "./own-link";
import { OwnRules } from "./own-rules";
import { QuestionsEditor } from "./questions-editor";
import { ServicePrice } from "./service-price";
import { ServiceTerms } from "./service-terms";
import { TryOut } from "./try-out";

type Service = SetupData["services"][number];

const fresh = (data: SetupData): ServiceDraft => ({
  id: null,
  code: "",
  name: "",
  otherNames: {},
  category: data.categories[0]?.name ?? "",
  description: "",
  priceMinor: 0,
  taxBp: data.business.taxRates[0]?.rateBp ?? 2100,
  minutes: 60,
  beforeMinutes: 0,
  afterMinutes: 0,
  crew: 1,
  hue: data.categories[0]?.hue ?? 0,
  skills: [],
  deposit: { kind: "none", value: 0 },
  active: true,
  days: 1,
  workPlace: "site",
  seats: 0,
  noticeMinutes: 0,
  capacity: null,
  wish: "none",
  confirm: false,
  repeats: [],
  comes: "set",
  promiseDays: null,
  againMonths: null,
  tells: "",
  windows: null,
  hours: [],
  technicians: [],
  limits: { window: null, day: null, week: null },
  questions: [],
  checklist: [],
  extras: [],
  picture: null,
  priceKind: "fixed",
  showsPrice: true,
  showsMinutes: true,
  mayPayAll: false,
  late: { hours: 24, kind: "none", value: 0 },
  noAccessMinor: 0,
  hidden: false,
  slug: null,
});

/** A service, and beside it how it looks to a customer. */
export function ServiceForm({
  service,
  data,
  saved,
}: {
  service: Service | null;
  data: SetupData;
  saved: (id: number) => void;
}) {
  const { draft, set, wrong, round, frame } = useKeptForm({
    operation: "save-service",
    of: `services ${service?.id ?? "new"}`,
    from: service ? (without(service, "promised") as ServiceDraft) : fresh(data),
    // A new service gets an address made of its name.
    input: ({ slug, ...rest }) => ({ ...rest, ...((slug !== null || rest.id !== null) && { slug: slug || null }) }),
    name: (d) => d.name,
    saved: (value) => saved(value.id),
  });
  const chooseCategory = (category: string) => {
    const known = data.categories.find((c) => c.name.toLowerCase() === category.trim().toLowerCase());
    set({ category, ...(known && { hue: known.hue }) });
  };
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr) 270px", gap: 6, alignItems: "start" }}>
      <FormFrame
        title={service?.name ?? "New service"}
        note={promisedNote(service?.promised ?? 0)}
        key={round}
        {...frame}
        more={service && <Duplicate service={service} saved={saved} />}
      >
        <Columns>
          <Field
            label="Name"
            value={draft.name}
            onChange={(e) => set({ name: e.target.value })}
            wrong={wrong("/name")}
          />
          <Field
            label="Code"
            value={draft.code}
            onChange={(e) => set({ code: e.target.value })}
            wrong={wrong("/code")}
            helperText="Two letters for the board"
          />
          {languages
            .filter((language) => language !== data.language)
            .map((language) => (
              <Field
                key={language}
                label={`Name in messages in ${languageNames[language]}`}
                value={draft.otherNames[language] ?? ""}
                onChange={(e) => set({ otherNames: { ...draft.otherNames, [language]: e.target.value } })}
                wrong={wrong(`/otherNames/${language}`)}
                helperText="Left empty: as it is"
              />
            ))}
          <Autocomplete
            freeSolo
            options={data.categories.map((c) => c.name)}
            inputValue={draft.category}
            onInputChange={(_, category) => chooseCategory(category)}
            renderInput={(params) => (
              <TextField {...params} label="Category" error={!!wrong("/category")} helperText={wrong("/category")} />
            )}
          />
        </Columns>
        <Field
          label="What customers read"
          multiline
          minRows={2}
          value={draft.description}
          onChange={(e) => set({ description: e.target.value })}
          wrong={wrong("/description")}
        />
        <Box sx={{ display: "flex", gap: 8, flexWrap: "wrap" }}>
          <ImageField label="Picture" purpose="service" token={draft.picture} onToken={(picture) => set({ picture })} />
          <HueField label="Colour" hue={draft.hue} onHue={(hue) => set({ hue })} />
        </Box>
        <Box>
          <FormControlLabel
            control={<Switch checked={draft.active} onChange={(e) => set({ active: e.target.checked })} />}
            label={draft.active ? "Can be booked" : "Archived: nobody can book it"}
          />
          <FormControlLabel
            control={<Switch checked={!draft.hidden} onChange={(e) => set({ hidden: !e.target.checked })} />}
            label={draft.hidden ? "Hidden: by its own link and in the office only" : "Shown at the front door"}
          />
        </Box>
        <OwnLink draft={draft} set={set} wrong={wrong} />
        <ServicePrice draft={draft} set={set} data={data} wrong={wrong} />
        <FormSection
          title="Time and people"
          said={`${durationWords(draft.minutes || 0)}, ${counted(draft.crew, "person", "people")}`}
        >
          <TextField
            select
            label="Where it is done"
            value={draft.workPlace}
            onChange={(e) => set({ workPlace: e.target.value as WorkPlace })}
            error={!!wrong("/workPlace")}
            helperText={
              wrong("/workPlace") ??
              (draft.workPlace === "site"
                ? "Somebody drives there; zones say when, and at what surcharge"
                : draft.workPlace === "ours"
                  ? "The customer comes or brings it; whoever is out has to be back by then"
                  : "Nobody drives: it is done from wherever the technician is")
            }
          >
            {workPlaces.map((place) => (
              <MenuItem key={place} value={place}>
                {workPlaceWords[place].owner}
              </MenuItem>
            ))}
          </TextField>
          {(draft.workPlace !== "site" || draft.seats > 0) && (
            <WholeField
              label="Customers at one time"
              value={draft.seats === 0 ? 1 : draft.seats}
              onValue={(seats) => set({ seats: seats === 1 ? 0 : seats })}
              wrong={wrong("/seats")}
              helperText={
                draft.seats > 0
                  ? `${draft.seats} seats with one technician; each customer books and pays their own. Set hours and windows that say when it begins.`
                  : "1: each customer has a time of their own"
              }
            />
          )}
          <Columns>
            <WholeField
              label="Minutes"
              value={draft.minutes}
              onValue={(minutes) => set({ minutes })}
              wrong={wrong("/minutes")}
            />
            <WholeField
              label="Minutes before"
              value={draft.beforeMinutes}
              onValue={(beforeMinutes) => set({ beforeMinutes })}
              wrong={wrong("/beforeMinutes")}
            />
            <WholeField
              label="Minutes after"
              value={draft.afterMinutes}
              onValue={(afterMinutes) => set({ afterMinutes })}
              wrong={wrong("/afterMinutes")}
            />
            <WholeField
              label="Crew, people"
              value={draft.crew}
              onValue={(crew) => set({ crew })}
              wrong={wrong("/crew")}
            />
          </Columns>
          <FormControlLabel
            control={<Switch checked={draft.showsMinutes} onChange={(e) => set({ showsMinutes: e.target.checked })} />}
            label="Customers see how long it takes"
          />
          <Autocomplete
            multiple
            freeSolo
            options={data.skills}
            value={draft.skills.map((s) => s.name)}
            onChange={(_, names) =>
              set({ skills: names.map((name) => draft.skills.find((s) => s.name === name) ?? { name, level: 1 }) })
            }
            renderInput={(params) => (
              <TextField {...params} label="Skills needed" helperText="Choose, or type a new one and press Enter" />
            )}
          />
          <Levels skills={draft.skills} onSkills={(skills) => set({ skills })} />
        </FormSection>
        <FormSection
          title="Questions"
          said={counted(draft.questions.length, "question")}
          note="Asked while booking. An answer can change the price, the minutes, the skills, the people and the parts."
        >
          <QuestionsEditor
            questions={draft.questions}
            onQuestions={(questions) => set({ questions })}
            data={data}
            wrong={wrong}
          />
        </FormSection>
        <FormSection title="Extras" said={counted(draft.extras.length, "extra")}>
          <Autocomplete
            multiple
            options={data.extras.filter((x) => x.active).map((x) => x.id)}
            value={draft.extras.map((x) => x.id)}
            onChange={(_, ids) =>
              set({ extras: ids.map((id) => draft.extras.find((x) => x.id === id) ?? { id, most: 10 }) })
            }
            getOptionLabel={(id) => data.extras.find((x) => x.id === id)?.name ?? "an extra that is gone"}
            renderInput={(params) => (
              <TextField {...params} label="Extras that can be added" helperText="Make them under Extras" />
            )}
          />
        </FormSection>
        <ChecklistField items={draft.checklist} onItems={(checklist) => set({ checklist })} wrong={wrong} />
        <ServiceTerms draft={draft} set={set} data={data} wrong={wrong} />
        <ComesBack draft={draft} set={set} data={data} wrong={wrong} />
        <OwnRules draft={draft} set={set} data={data} wrong={wrong} />
      </FormFrame>
      <TryOut service={draft} data={data} />
    </Box>
  );
}

/** Where a service asks for more than the first level of a skill. */
function Levels({
  skills,
  onSkills,
}: {
  skills: ServiceDraft["skills"];
  onSkills: (skills: ServiceDraft["skills"]) => void;
}) {
  return skills.map((skill) => (
    <Box key={skill.name} sx={{ display: "flex", gap: 3, alignItems: "center", pl: 3 }}>
      <Box sx={{ width: 150 }}>{skill.name}</Box>
      <LevelField
        name={skill.name}
        level={skill.level}
        onLevel={(level) => onSkills(skills.map((s) => (s === skill ? { ...s, level } : s)))}
      />
    </Box>
  ));
}

function Duplicate({ service, saved }: { service: Service; saved: (id: number) => void }) {
  const { enqueueSnackbar } = useSnackbar();
  const { send, busy } = useChange("duplicate-service", {
    then({ id }) {
      enqueueSnackbar(`${service.name} is there twice; the copy is archived until you have changed it`, {
        variant: "success",
      });
      saved(id);
    },
  });
  return (
    <Button disabled={busy} onClick={() => void send({ id: service.id })}>
      Duplicate
    </Button>
  );
}
