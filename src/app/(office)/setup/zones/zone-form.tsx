"use client";
import type { Area } from "@/core/place/zones";
import { FormFrame, promisedNote, without } from "@/ui/form-frame";
import {
  Columns,
  Field,
  MoneyField,
  OptionalWholeField,
  SignedWholeField,
  TimeField,
  WeekdaysField,
  WholeField,
} from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import { ink } from "@/ui/palette";
import { useKeptForm } from "@/ui/use-kept-form";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useEffect } from "react";
import type { SetupData, Zone } from "../data";
import { TechniciansField } from "../windows/named-field";
import { LimitsField } from "../windows/rule-fields";
import { CornersField } from "./corners-field";
import { SetAside } from "./set-aside";

/** Postcodes as they are typed. */
type Draft = Omit<Zone, "id" | "postcodes" | "promised"> & { id: number | null; typed: string };

const fresh: Draft = {
  technicians: [],
  limits: { window: null, day: null, week: null },
  windingPercent: null,
  kmh: null,
  id: null,
  name: "",
  typed: "",
  towns: [],
  area: null,
  priority: 0,
  extraMinutes: 0,
  weekdays: 31,
  serveFrom: 7 * 60,
  serveTo: 19 * 60,
  noticeMinutes: 0,
  surchargeMinor: 0,
  smallestOrderMinor: 0,
};

interface ZoneFormProps {
  zone: Zone | null;
  data: SetupData;
  /** The area as it stands on the map. */
  area: Area | null;
  onArea: (area: Area | null) => void;
  drawing: boolean;
  onDrawing: (drawing: boolean) => void;
  saved: (id?: number) => void;
}

export function ZoneForm({ zone, data, area, onArea, drawing, onDrawing, saved }: ZoneFormProps) {
  const { currency } = data;
  const { draft, set, wrong, round, frame } = useKeptForm({
    operation: "save-zone",
    of: `zones ${zone?.id ?? "new"}`,
    from: zone ? ({ ...without(zone, "postcodes", "promised"), typed: zone.postcodes.join("\n") } as Draft) : fresh,
    input: ({ typed, ...rest }) => ({
      ...rest,
      postcodes: typed
        .split(/[\n,;]+/)
        .map((p) => p.trim())
        .filter(Boolean),
    }),
    name: (d) => d.name,
    saved: (value) => {
      onDrawing(false);
      saved(value.id);
    },
  });
  // The map draws, the form keeps.
  const drawn = JSON.stringify(area);
  useEffect(() => {
    if (drawing && drawn !== JSON.stringify(draft.area)) set({ area });
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [drawn, drawing]);
  const kept = JSON.stringify(draft.area);
  useEffect(() => {
    if (!drawing) onArea(draft.area);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [kept, drawing]);

  return (
    <FormFrame
      title={zone?.name ?? "New zone"}
      note={promisedNote(zone?.promised ?? 0)}
      key={round}
      {...frame}
      more={zone && <SetAside zone={zone} saved={saved} />}
    >
      <Field label="Name" value={draft.name} onChange={(e) => set({ name: e.target.value })} wrong={wrong("/name")} />
      <FormSection title="Where it is" note="An area on the map, postcodes, towns, or several of them together.">
        <Box sx={{ display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap" }}>
          <Button variant={drawing ? "contained" : "outlined"} onClick={() => onDrawing(!drawing)}>
            {drawing ? "Done drawing" : draft.area ? "Change the area" : "Draw an area"}
          </Button>
          {draft.area && (
            <Button
              onClick={() => {
                onDrawing(false);
                set({ area: null });
                onArea(null);
              }}
            >
              Take the area away
            </Button>
          )}
          <Box sx={{ color: ink.ash, fontSize: 14 }}>
            {drawing
              ? "Click the corners on the map and close the area at the first one. Corners can be moved; a right click takes one away."
              : draft.area
                ? "Drawn on the map above."
                : ""}
          </Box>
        </Box>
        {wrong("/area") && (
          <Box role="alert" sx={{ color: "error.main", fontSize: 13 }}>
            {wrong("/area")}
          </Box>
        )}
        <CornersField
          area={draft.area}
          onArea={(next) => {
            onDrawing(false);
            set({ area: next });
          }}
        />
        <Field
          label="Postcodes"
          multiline
          minRows={3}
          value={draft.typed}
          onChange={(e) => set({ typed: e.target.value })}
          wrong={wrong("/postcodes")}
          helperText="One a line: MW 101, a range MW 101-109, or a beginning MW 1*"
        />
        <Autocomplete
          multiple
          freeSolo
          options={[]}
          value={draft.towns}
          onChange={(_, towns) => set({ towns })}
          renderInput={(params) => (
            <TextField {...params} label="Towns" helperText="Type a town or district and press Enter" />
          )}
        />
        <Columns>
          <SignedWholeField
            label="Priority"
            value={draft.priority}
            onValue={(priority) => set({ priority })}
            wrong={wrong("/priority")}
            helperText="Where zones overlap, the highest counts; then the one that names the address most exactly"
          />
        </Columns>
      </FormSection>
      <FormSection title="On what terms">
        <WeekdaysField
          label="Served on"
          value={draft.weekdays}
          onValue={(weekdays) => set({ weekdays })}
          wrong={wrong("/weekdays")}
        />
        <Columns>
          <TimeField
            label="From"
            value={draft.serveFrom}
            onValue={(serveFrom) => set({ serveFrom })}
            wrong={wrong("/serveFrom")}
          />
          <TimeField
            label="To"
            value={draft.serveTo}
            after={draft.serveFrom}
            onValue={(serveTo) => set({ serveTo })}
            wrong={wrong("/serveTo")}
          />
          <WholeField
            label="Notice, hours"
            value={draft.noticeMinutes / 60}
            onValue={(hours) => set({ noticeMinutes: hours * 60 })}
            wrong={wrong("/noticeMinutes")}
          />
        </Columns>
        <Columns>
          <MoneyField
            currency={currency}
            label={`Surcharge, ${currency}`}
            value={draft.surchargeMinor}
            onValue={(surchargeMinor) => set({ surchargeMinor })}
            wrong={wrong("/surchargeMinor")}
          />
          <MoneyField
            currency={currency}
            label={`Smallest order, ${currency}`}
            value={draft.smallestOrderMinor}
            onValue={(smallestOrderMinor) => set({ smallestOrderMinor })}
            wrong={wrong("/smallestOrderMinor")}
          />
          <WholeField
            label="Extra driving, minutes"
            value={draft.extraMinutes}
            onValue={(extraMinutes) => set({ extraMinutes })}
            wrong={wrong("/extraMinutes")}
            helperText="Each way in and out, such as a ferry"
          />
        </Columns>
        <TechniciansField
          label="Technicians who go there"
          ids={draft.technicians}
          onIds={(technicians) => set({ technicians })}
          data={data}
        />
        <LimitsField limits={draft.limits} onLimits={(limits) => set({ limits })} wrong={wrong} />
        <Columns>
          <OptionalWholeField
            label="Speed, km/h"
            value={draft.kmh}
            onValue={(kmh) => set({ kmh })}
            wrong={wrong("/kmh")}
            helperText={`Where no roads are known. Empty: ${data.business.kmh}`}
          />
          <OptionalWholeField
            label="Winding, %"
            value={draft.windingPercent}
            onValue={(windingPercent) => set({ windingPercent })}
            wrong={wrong("/windingPercent")}
            helperText={`The way, of the straight line. Empty: ${data.business.windingPercent}`}
          />
        </Columns>
      </FormSection>
    </FormFrame>
  );
}
