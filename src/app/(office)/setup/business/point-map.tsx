"use client";
import type { Point } from "@/core/place/points";
import { ink } from "@/ui/palette";
import type { TownShown } from "@/ui/town-map";
import TownMap from "@/ui/town-map";
import { CircleMarker, useMapEvents } from "react-leaflet";

/** A map with one point, put where one clicks. */
export default function PointMap({
  point,
  onPoint,
  label,
  ...town
}: TownShown & { label: string; point: Point; onPoint: (point: Point) => void }) {
  return (
    <TownMap {...town} label={label} height={300}>
      <Clicks onPoint={onPoint} />
      <CircleMarker
        center={[point.lat, point.lng]}
        radius={8}
        pathOptions={{ color: ink.paper, weight: 2, fillColor: ink.ember, fillOpacity: 1 }}
      />
    </TownMap>
  );
}

function Clicks({ onPoint }: { onPoint: (point: Point) => void }) {
  useMapEvents({ click: ({ latlng }) => onPoint({ lng: latlng.lng, lat: latlng.lat }) });
  return null;
}
