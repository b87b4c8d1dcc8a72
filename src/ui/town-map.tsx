"use client";
import type { Point } from "@/core/place/points";
import type { GeoJsonObject } from "geojson";
import type { Map as LeafletMap } from "leaflet";
import "leaflet/dist/leaflet.css";
import { type ReactNode, useEffect, useMemo } from "react";
import { GeoJSON, MapContainer, Polyline, useMap } from "react-leaflet";
import { ink } from "./palette";
import "./town-map.css";

export interface TownShown {
  home: Point;
  town: unknown;
  roads: [number, number][][];
}

interface TownMapProps extends TownShown {
  label: string;
  height: number | string;
  /** What must be seen; the town where nothing is said. */
  fit?: readonly Point[];
  onReady?: (map: LeafletMap) => void;
  children?: ReactNode;
}

const kindOf = (feature: unknown): string =>
  String((feature as { properties?: { kind?: string } } | undefined)?.properties?.kind ?? "");
const lineOf: Record<string, { color: string; weight: number; fillOpacity?: number }> = {
  coast: { color: ink.lake, weight: 3 },
  river: { color: "#7FA9B5", weight: 5 },
  district: { color: ink.line, weight: 1, fillOpacity: 0.25 },
};

/** The business's own map: coast, river, districts and roads as lines; no outside tiles. */
export default function TownMap({ home, town, roads, label, height, fit = [], onReady, children }: TownMapProps) {
  const lines = useMemo(() => roads.map((road) => road.map(([lng, lat]) => [lat, lng] as [number, number])), [roads]);
  return (
    <MapContainer
      center={[home.lat, home.lng]}
      zoom={12}
      minZoom={3}
      scrollWheelZoom
      attributionControl={false}
      style={{ height, background: "#F4F1E8", borderRadius: 6 }}
    >
      <Named label={label} onReady={onReady} />
      {town ? (
        <GeoJSON
          data={town as GeoJsonObject}
          interactive={false}
          style={(feature) => ({ ...(lineOf[kindOf(feature)] ?? lineOf.district!), fillColor: "#EAE5D6" })}
        />
      ) : null}
      <Polyline positions={lines} interactive={false} pathOptions={{ color: "#CFC8B6", weight: 1.2 }} />
      <Fit points={fit.length ? fit : roads.length ? roads.flat().map(([lng, lat]) => ({ lng, lat })) : [home]} />
      {children}
    </MapContainer>
  );
}

function Named({ label, onReady }: { label: string; onReady?: (map: LeafletMap) => void }) {
  const map = useMap();
  useEffect(() => {
    map.getContainer().setAttribute("role", "region");
    map.getContainer().setAttribute("aria-label", label);
    onReady?.(map);
  }, [map, label, onReady]);
  return null;
}

/** Shows the points when the map opens, and again when there are others. */
function Fit({ points }: { points: readonly Point[] }) {
  const map = useMap();
  const bounds = useMemo(() => {
    const [lats, lngs] = [points.map((p) => p.lat), points.map((p) => p.lng)];
    return [
      [least(lats), least(lngs)],
      [most(lats), most(lngs)],
    ] as [[number, number], [number, number]];
  }, [points]);
  const key = bounds.flat().join(" ");
  useEffect(() => {
    map.fitBounds(bounds, { padding: [16, 16], maxZoom: 15, animate: false });
    // The numbers say whether there is something new to see.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [map, key]);
  return null;
}

// Not Math.min(...): there may be more points than a call takes.
const least = (values: readonly number[]): number => values.reduce((a, b) => Math.min(a, b), Infinity);
const most = (values: readonly number[]): number => values.reduce((a, b) => Math.max(a, b), -Infinity);
