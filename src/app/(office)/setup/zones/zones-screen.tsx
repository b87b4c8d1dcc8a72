"use client";
import { readZones, type ReadZones, zonesAsCsv, zonesAsGeoJson } from "@/core/place/zone-files";
import type { Area } from "@/core/place/zones";
import { AddressField, type FoundAddress } from "@/ui/address-field";
import { download } from "@/ui/download";
import { LinkBox } from "@/ui/link-box";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { usePromisesFirst } from "@/ui/use-promises-first";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Skeleton from "@mui/material/Skeleton";
import Switch from "@mui/material/Switch";
import Typography from "@mui/material/Typography";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useSnackbar } from "notistack";
import { useRef, useState } from "react";
import type { SetupData } from "../data";
import { ZoneForm } from "./zone-form";
import { counted } from "@/core/words";

const ZoneMap = dynamic(() => import("./zone-map"), {
  ssr: false,
  loading: () => <Skeleton variant="rounded" height={340} />,
});

/** The map above; under it the zone that is open, or what concerns all of them. */
export function ZonesScreen({ data, id, saved }: { data: SetupData; id: string | null; saved: (id?: number) => void }) {
  const router = useRouter();
  const zone = data.zones.find((z) => String(z.id) === id) ?? null;
  const { data: map, refresh } = useLive("zone-map", {});
  const [customers, setCustomers] = useState(true);
  const [load, setLoad] = useState(false);
  const [area, setArea] = useState<Area | null>(zone?.area ?? null);
  const [drawing, setDrawing] = useState(false);
  const [mark, setMark] = useState<{ lng: number; lat: number } | null>(null);
  const open = id !== null;
  const shown = data.zones.map((z) => ({
    id: z.id,
    name: z.name,
    area: z.area,
    visits: map?.load.find((l) => l.id === z.id)?.visits ?? 0,
  }));
  const outside = map?.customers.filter((c) => c.zoneId === null).length ?? 0;
  return (
    <Box sx={{ display: "grid", gap: 5 }}>
      <Box>
        {map ? (
          <ZoneMap
            map={map}
            zones={shown}
            chosen={zone?.id ?? (open ? "new" : null)}
            area={open ? area : null}
            drawing={drawing}
            onArea={open ? setArea : undefined}
            onChoose={(chosen) => router.push(`/setup/zones?id=${chosen}`)}
            customers={customers}
            load={load}
            mark={mark}
          />
        ) : (
          <Skeleton variant="rounded" height={340} />
        )}
        <Box sx={{ display: "flex", gap: 4, alignItems: "center", flexWrap: "wrap", mt: 1 }}>
          <FormControlLabel
            control={<Switch size="small" checked={customers} onChange={(e) => setCustomers(e.target.checked)} />}
            label="Customers"
          />
          <FormControlLabel
            control={<Switch size="small" checked={load} onChange={(e) => setLoad(e.target.checked)} />}
            label="Visits of two weeks"
          />
          {map && (
            <Box sx={{ color: outside ? ink.ember : ink.ash, fontSize: 14 }}>
              {outside
                ? `○ ${outside} ${outside === 1 ? "site lies" : "sites lie"} outside all zones`
                : "Every customer’s site lies in a zone"}
            </Box>
          )}
        </Box>
      </Box>
      {open ? (
        <ZoneForm
          key={id}
          zone={zone}
          data={data}
          area={area}
          onArea={setArea}
          drawing={drawing}
          onDrawing={setDrawing}
          saved={(savedId) => {
            refresh();
            saved(savedId);
          }}
        />
      ) : (
        <>
          <WhichZone onMark={setMark} />
          <Files
            data={data}
            saved={() => {
              refresh();
              saved();
            }}
          />
        </>
      )}
    </Box>
  );
}

/** "Which zone is this address in, and why?" */
function WhichZone({ onMark }: { onMark: (point: { lng: number; lat: number } | null) => void }) {
  const [address, setAddress] = useState<FoundAddress | null>(null);
  const { data, problem } = useLive("which-zone", address ? { addressId: address.id } : null);
  return (
    <Box component="section" aria-label="Which zone?">
      <Typography variant="h2" sx={{ mb: 2 }}>
        Which zone is an address in?
      </Typography>
      <Box sx={{ maxWidth: 480 }}>
        <AddressField
          label="Try an address"
          value={address}
          onValue={(a) => {
            setAddress(a);
            onMark(a);
          }}
        />
      </Box>
      <Box aria-live="polite" sx={{ mt: 2 }}>
        {problem?.sentence}
        {address && data?.zones.length === 0 && "It is outside all zones: no postcode, no town and no area holds it."}
        {data?.zones.map((zone, i) => (
          <Box key={zone.id} sx={{ py: 1, color: i === 0 ? ink.ink : ink.ash }}>
            <LinkBox href={`/setup/zones?id=${zone.id}`} sx={{ color: ink.lake, fontWeight: i === 0 ? 700 : 400 }}>
              {zone.name}
            </LinkBox>
            , since {zone.why}
            {i > 0 &&
              (zone.priority < data.zones[0]!.priority
                ? `; but its priority is ${zone.priority}, and that of ${data.zones[0]!.name} is ${data.zones[0]!.priority}`
                : `; but ${data.zones[0]!.name} names it more exactly`)}
            .
          </Box>
        ))}
      </Box>
    </Box>
  );
}

/** Zones out to a file and in from one: looked over before anything is made. */
function Files({ data, saved }: { data: SetupData; saved: () => void }) {
  const [read, setRead] = useState<ReadZones | null>(null);
  const { send, busy, problem } = useChange("take-zones");
  const { asks, first, settle } = usePromisesFirst();
  const { enqueueSnackbar } = useSnackbar();
  const input = useRef<HTMLInputElement>(null);
  const filed = data.zones.map(({ name, postcodes, towns, priority, area }) => ({
    name,
    postcodes,
    towns,
    priority,
    area,
  }));
  const isKnown = (name: string) => data.zones.some((z) => z.name.toLowerCase() === name.toLowerCase());
  const take = async () => {
    const settled = await first("take-zones", { zones: read!.zones });
    const done = settled && (await send({ zones: read!.zones }));
    if (!done) return;
    await settle(settled);
    enqueueSnackbar(`${counted(done.value.made, "zone")} made, ${done.value.changed} changed`, { variant: "success" });
    setRead(null);
    saved();
  };
  return (
    <Box component="section" aria-label="Zones in files">
      <Typography variant="h2" sx={{ mb: 2 }}>
        Import and export
      </Typography>
      <Box sx={{ color: ink.ash, mb: 2 }}>
        Areas as GeoJSON; postcodes and towns as CSV with the columns zone, postcode, town, priority.
      </Box>
      <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap" }}>
        <input
          ref={input}
          type="file"
          accept=".geojson,.json,.csv,application/geo+json,text/csv"
          aria-label="File of zones"
          hidden
          onChange={(e) => {
            void e.target.files?.[0]?.text().then((text) => setRead(readZones(text)));
            e.target.value = "";
          }}
        />
        <Button variant="outlined" onClick={() => input.current?.click()}>
          Import
        </Button>
        {filed.length > 0 && (
          <Button onClick={() => download("zones.geojson", "application/geo+json", zonesAsGeoJson(filed))}>
            Save GeoJSON
          </Button>
        )}
        {filed.length > 0 && (
          <Button onClick={() => download("zones.csv", "text/csv", zonesAsCsv(filed))}>Export CSV</Button>
        )}
      </Box>
      {read && (
        <Box sx={{ mt: 3 }}>
          {asks}
          {problem && (
            <Alert severity="error" sx={{ mb: 2 }}>
              {problem.sentence} {Object.values(problem.fields ?? {})[0]}
            </Alert>
          )}
          {read.problems.map((sentence) => (
            <Alert key={sentence} severity="warning" sx={{ mb: 1 }}>
              {sentence}
            </Alert>
          ))}
          {read.zones.map((zone) => (
            <Box key={zone.name} sx={{ borderTop: `1px solid ${ink.line}`, py: 1.5 }}>
              <b>{zone.name}</b> {isKnown(zone.name) ? "changes" : "is new"}:{" "}
              {[
                zone.area && "an area",
                zone.postcodes?.length &&
                  `${zone.postcodes.length} ${zone.postcodes.length === 1 ? "postcode" : "postcodes"}`,
                zone.towns?.length && `${zone.towns.length} towns`,
              ]
                .filter(Boolean)
                .join(", ") || "nothing"}
            </Box>
          ))}
          <Box sx={{ display: "flex", gap: 2, mt: 2 }}>
            <Button variant="contained" disabled={busy || read.zones.length === 0} onClick={() => void take()}>
              {read.zones.length
                ? `Take ${read.zones.length} ${read.zones.length === 1 ? "zone" : "zones"}`
                : "Nothing to take"}
            </Button>
            <Button onClick={() => setRead(null)}>Leave it</Button>
          </Box>
        </Box>
      )}
    </Box>
  );
}
