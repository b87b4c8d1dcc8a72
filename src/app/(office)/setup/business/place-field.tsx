"use client";
import { AddressField, type FoundAddress } from "@/ui/address-field";
import { Columns, Field } from "@/ui/form-parts";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import dynamic from "next/dynamic";
import { useState } from "react";

const PointMap = dynamic(() => import("./point-map"), { ssr: false });

export interface NamedPlace {
  lng: number;
  lat: number;
  line: string;
}

/** A place: by the look-up, by a click on the map, or by its coordinates. */
export function PlaceField({
  label,
  place,
  onPlace,
  wrong,
}: {
  label: string;
  place: NamedPlace;
  onPlace: (place: NamedPlace) => void;
  wrong?: string;
}) {
  const [open, setOpen] = useState(false);
  const shown: FoundAddress | null = place.line
    ? { id: "as saved", line: place.line, postcode: "", lng: place.lng, lat: place.lat }
    : null;
  return (
    <Box role="group" aria-label={label}>
      <Box sx={{ display: "flex", gap: 3, alignItems: "flex-start" }}>
        <Box sx={{ flex: 1 }}>
          <AddressField
            label={label}
            value={shown}
            onValue={(address) =>
              address && onPlace({ lng: address.lng, lat: address.lat, line: `${address.line}, ${address.postcode}` })
            }
            wrong={wrong}
          />
        </Box>
        <Button size="small" aria-expanded={open} onClick={() => setOpen(!open)} sx={{ height: 40, flex: "none" }}>
          {open ? "Close the map" : "On the map"}
        </Button>
      </Box>
      {open && <OnMap place={place} onPlace={onPlace} label={label} />}
    </Box>
  );
}

function OnMap({ place, onPlace, label }: { place: NamedPlace; onPlace: (place: NamedPlace) => void; label: string }) {
  const { data } = useLive("zone-map", {});
  const move = (point: { lng: number; lat: number }) =>
    onPlace({ ...place, lng: rounded(point.lng), lat: rounded(point.lat) });
  const degrees = (text: string, most: number, apply: (value: number) => void) => {
    const value = Number(text);
    if (text.trim() !== "" && Number.isFinite(value) && Math.abs(value) <= most) apply(value);
  };
  return (
    <Box sx={{ mt: 3, display: "grid", gap: 3 }}>
      {data && (
        <PointMap
          label={`${label} on the map`}
          home={place}
          town={data.town}
          roads={data.roads}
          point={place}
          onPoint={move}
        />
      )}
      <Box sx={{ color: ink.ash, fontSize: 13 }}>
        Click where it is, or write what it is called and its coordinates.
      </Box>
      <Columns>
        <Field label="Called" value={place.line} onChange={(e) => onPlace({ ...place, line: e.target.value })} />
        <Field
          label="Longitude"
          key={`lng ${place.lng}`}
          defaultValue={place.lng}
          onBlur={(e) => degrees(e.target.value, 180, (lng) => move({ ...place, lng }))}
        />
        <Field
          label="Latitude"
          key={`lat ${place.lat}`}
          defaultValue={place.lat}
          onBlur={(e) => degrees(e.target.value, 90, (lat) => move({ ...place, lat }))}
        />
      </Columns>
    </Box>
  );
}

const rounded = (degrees: number): number => Math.round(degrees * 1e6) / 1e6;
