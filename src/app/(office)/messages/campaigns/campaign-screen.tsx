"use client";
import { everyone } from "@/core/customers/audience";
import type { Language } from "@/core/messages/languages";
import { localOf } from "@/core/time/local";
import { clock, dayWords } from "@/core/time/words";
import { FormFrame, without } from "@/ui/form-frame";
import { Columns, Field, MoneyField, OptionalWholeField, TimeField, WholeField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import { DateField } from "@/ui/date-field";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useKeptForm } from "@/ui/use-kept-form";
import Alert from "@mui/material/Alert";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Skeleton from "@mui/material/Skeleton";
import TextField from "@mui/material/TextField";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { NamedField } from "../../setup/windows/named-field";
import { CampaignResults } from "./campaign-results";
import { CampaignWords } from "./campaign-words";
import { campaignAddress, type CampaignDraft, type CampaignView, type SavedCampaign } from "./data";
import { WhoAndHowMany } from "./who-and-how-many";

/** One campaign: what it offers to whom in which words, how many that are and for how many there is room, and what came of it. */
export function CampaignScreen({ id }: { id: number | null }) {
  const { data, problem } = useLive("campaign", { id }, 20_000);
  const router = useRouter();
  return (
    <Box sx={{ px: 6, pt: 6, overflowY: "auto" }}>
      <Button onClick={() => router.push(campaignAddress(null))} sx={{ mb: 2 }}>
        ‹ All campaigns
      </Button>
      {problem && <Alert severity="warning">{problem.sentence}</Alert>}
      {data ? <Editor view={data} /> : !problem && <Skeleton variant="rounded" height={480} />}
    </Box>
  );
}

const blank = (view: CampaignView): CampaignDraft => ({
  name: "",
  serviceId: view.services[0]?.id ?? 0,
  couponId: null,
  audience: {
    ...everyone,
    services: view.services[0] ? [view.services[0].id] : [],
    monthsAgoLeast: 10,
    monthsAgoMost: 18,
  },
  texts: view.starting.texts,
  first: view.starting.first,
  last: view.starting.last,
  at: 10 * 60,
  mostADay: 20,
  answerDays: 5,
});

function Editor({ view }: { view: CampaignView }) {
  const router = useRouter();
  const { campaign: saved, currency } = view;
  const [language, setLanguage] = useState<Language>(view.language);
  const { draft, set, wrong, frame, round } = useKeptForm({
    operation: "save-campaign",
    of: `campaign ${saved?.id ?? "new"}`,
    from: saved ? without(saved, "id", "state", "endReason", "nextAt") : blank(view),
    input: (d) => ({ id: saved?.id ?? null, ...d }),
    name: (d) => d.name,
    saved: ({ id }) => {
      if (!saved) router.replace(campaignAddress(id));
    },
  });
  const { audience } = draft;
  const meant = (part: Partial<typeof audience>) => set({ audience: { ...audience, ...part } });
  const isOver = saved?.state === "ended";
  const coupons = view.coupons.filter(({ services }) => services.length === 0 || services.includes(draft.serviceId));
  return (
    <>
      {saved && <Standing view={view} saved={saved} />}
      {view.results && view.results.invited > 0 && <CampaignResults view={view} />}
      <Box sx={{ display: "grid", gridTemplateColumns: { md: "minmax(0, 1fr) 380px" }, gap: 7, alignItems: "start" }}>
        <FormFrame
          title={saved ? saved.name : "New campaign"}
          key={round}
          {...frame}
          save={isOver ? "It has ended" : "Save"}
          busy={frame.busy || isOver}
        >
          <FormSection title="What">
            <Columns>
              <Field
                label="Name"
                value={draft.name}
                onChange={(e) => set({ name: e.target.value })}
                wrong={wrong("/name")}
                helperText="Only you read it"
              />
              <Field
                select
                label="Service"
                value={draft.serviceId || ""}
                onChange={(e) => set({ serviceId: Number(e.target.value) })}
                wrong={wrong("/serviceId")}
              >
                {view.services.map(({ id, name }) => (
                  <MenuItem key={id} value={id}>
                    {name}
                  </MenuItem>
                ))}
              </Field>
              <Field
                select
                label="Coupon"
                value={draft.couponId ?? 0}
                onChange={(e) => set({ couponId: Number(e.target.value) || null })}
                wrong={wrong("/couponId")}
                helperText="It counts by itself for whoever comes by the link"
              >
                <MenuItem value={0}>none</MenuItem>
                {coupons.map(({ id, code }) => (
                  <MenuItem key={id} value={id}>
                    {code}
                  </MenuItem>
                ))}
              </Field>
            </Columns>
            <Columns>
              <DateField
                label="Visits from"
                value={draft.first}
                onValue={(first) => first && set({ first })}
                wrong={wrong("/first")}
              />
              <DateField
                label="Visits until"
                value={draft.last}
                onValue={(last) => last && set({ last })}
                wrong={wrong("/last")}
              />
            </Columns>
          </FormSection>
          <FormSection title="To whom" note="Beside this, only customers who have agreed to offers are written to.">
            <NamedField
              label="They have had"
              none="whatever it was, or nothing yet"
              options={view.services}
              ids={[...audience.services]}
              onIds={(services) => meant({ services })}
            />
            <Columns>
              <OptionalWholeField
                label="The last time, months ago at least"
                value={audience.monthsAgoLeast}
                onValue={(monthsAgoLeast) => meant({ monthsAgoLeast })}
                wrong={wrong("/audience/monthsAgoLeast")}
              />
              <OptionalWholeField
                label="And at most"
                value={audience.monthsAgoMost}
                onValue={(monthsAgoMost) => meant({ monthsAgoMost })}
                wrong={wrong("/audience/monthsAgoMost")}
              />
              <MoneyField
                currency={currency}
                label={`Have paid at least, ${currency}`}
                value={audience.paidLeastMinor ?? 0}
                onValue={(minor) => meant({ paidLeastMinor: minor || null })}
                wrong={wrong("/audience/paidLeastMinor")}
              />
            </Columns>
            <NamedField
              label="Zones"
              none="all of them"
              options={view.zones}
              ids={[...audience.zones]}
              onIds={(zones) => meant({ zones })}
            />
            <Columns>
              <Autocomplete
                options={view.tags}
                value={audience.tag}
                onChange={(_, tag) => meant({ tag })}
                renderInput={(params) => <TextField {...params} label="Tag" helperText="None: whatever they are" />}
              />
              <WholeField
                label="Not invited for, days"
                value={audience.restDays}
                onValue={(restDays) => meant({ restDays })}
                wrong={wrong("/audience/restDays")}
                helperText="By another campaign"
              />
            </Columns>
            <FormControlLabel
              control={<Checkbox checked={audience.noComing} onChange={(e) => meant({ noComing: e.target.checked })} />}
              label="Only who has no coming visit and no repeat"
            />
          </FormSection>
          <FormSection
            title="How many"
            note="Each day at this time, as many are invited as the windows of these days still have room for. Whoever has not answered keeps theirs for some days."
          >
            <Columns>
              <TimeField label="Each day at" value={draft.at} onValue={(at) => set({ at })} wrong={wrong("/at")} />
              <WholeField
                label="At most a day"
                value={draft.mostADay}
                onValue={(mostADay) => set({ mostADay })}
                wrong={wrong("/mostADay")}
              />
              <WholeField
                label="Room kept for, days"
                value={draft.answerDays}
                onValue={(answerDays) => set({ answerDays })}
                wrong={wrong("/answerDays")}
              />
            </Columns>
          </FormSection>
          <CampaignWords
            view={view}
            texts={draft.texts}
            onTexts={(texts) => set({ texts })}
            wrong={wrong}
            language={language}
            onLanguage={setLanguage}
          />
        </FormFrame>
        <WhoAndHowMany draft={draft} campaignId={saved?.id ?? null} currency={currency} />
      </Box>
    </>
  );
}

function momentWords(minute: number, zone: string): string {
  const at = localOf(minute, zone);
  return `${dayWords(at.date)} at ${clock(at.minute)}`;
}

/** Where it stands, and what can be done about it. */
function Standing({ view, saved }: { view: CampaignView; saved: SavedCampaign }) {
  const router = useRouter();
  const run = useChange("run-campaign");
  const pause = useChange("pause-campaign");
  const end = useChange("end-campaign");
  const remove = useChange("remove-campaign", { then: () => router.push(campaignAddress(null)) });
  const busy = run.busy || pause.busy || end.busy || remove.busy;
  const problem = run.problem ?? remove.problem;
  const { id, state } = saved;
  return (
    <Box
      role="group"
      aria-label="Where it stands"
      sx={{
        display: "flex",
        gap: 3,
        alignItems: "center",
        flexWrap: "wrap",
        mb: 5,
        p: 4,
        bgcolor: ink.plaster,
        border: `1px solid ${ink.line}`,
        borderRadius: "6px",
      }}
    >
      <Box sx={{ flex: 1, minWidth: 240 }} role="status">
        {state === "draft" && "A draft: nobody is invited yet."}
        {state === "running" && `Running. The next invitations go out on ${momentWords(saved.nextAt!, view.timeZone)}.`}
        {state === "paused" && "Paused: nobody more is invited. Links that went out stay good."}
        {state === "ended" && `Ended: ${saved.endReason}`}
      </Box>
      {state !== "ended" && state !== "running" && (
        <Button variant="contained" disabled={busy} onClick={() => void run.send({ id })}>
          {state === "paused" ? "Go on" : "Begin"}
        </Button>
      )}
      {state === "running" && (
        <Button variant="outlined" disabled={busy} onClick={() => void pause.send({ id })}>
          Pause
        </Button>
      )}
      {(state === "running" || state === "paused") && (
        <Button disabled={busy} onClick={() => void end.send({ id })}>
          End it
        </Button>
      )}
      {state === "draft" && (
        <Button disabled={busy} onClick={() => void remove.send({ id })}>
          Throw away
        </Button>
      )}
      {problem && (
        <Alert severity="warning" role="alert" sx={{ width: "100%" }}>
          {problem.sentence}
        </Alert>
      )}
    </Box>
  );
}
