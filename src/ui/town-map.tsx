"use client";
import type { Point } from "@/core/place/points";
import type { Feature, FeatureCollection, Position } from "geojson";
import L, { type Map as LeafletMap, type PathOptions } from "leaflet";
import "leaflet/dist/leaflet.css";
import { type ReactNode, useEffect, useMemo } from "react";
import { GeoJSON, MapContainer, Polyline, ScaleControl, useMap } from "react-leaflet";
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
  /** Where zones are shown, their names stand in place of those of the districts. */
  districtNames?: boolean;
  onReady?: (map: LeafletMap) => void;
  children?: ReactNode;
}

const featuresOf = (town: unknown): Feature[] => (town as FeatureCollection | null)?.features ?? [];
const kindOf = (feature: Feature | undefined): string => String(feature?.properties?.kind ?? "");
const sea = "#DCE6E6";
const lookOf: Record<string, PathOptions> = {
  land: { color: "#9DB7BA", weight: 1.2, fillColor: "#F6F3EA", fillOpacity: 1 },
  moor: { weight: 0, fillColor: "#E9E6D3", fillOpacity: 1 },
  wood: { weight: 0, fillColor: "#DFE6D3", fillOpacity: 1 },
  district: { weight: 0, fillColor: "#EAE4D4", fillOpacity: 1 },
  river: { color: "#B5CDD0", weight: 5, lineCap: "round" },
  ferry: { color: "#8FA9AC", weight: 1.5, dashArray: "2 5" },
};

/** The business's own map: coast, hills, river, districts, streets and their names; no outside tiles. */
export default function TownMap({
  home,
  town,
  roads,
  label,
  height,
  fit = [],
  districtNames = true,
  onReady,
  children,
}: TownMapProps) {
  const features = useMemo(() => featuresOf(town), [town]);
  const ground = useMemo(() => features.filter((feature) => lookOf[kindOf(feature)]), [features]);
  const lines = useMemo(() => roads.map((road) => road.map(([lng, lat]) => [lat, lng] as [number, number])), [roads]);
  return (
    <MapContainer
      center={[home.lat, home.lng]}
      zoom={12}
      minZoom={3}
      scrollWheelZoom
      attributionControl={false}
      style={{ height, background: ground.length ? sea : "#F4F1E8", borderRadius: 6 }}
    >
      <Named label={label} onReady={onReady} />
      {ground.length > 0 && (
        <GeoJSON
          data={{ type: "FeatureCollection", features: ground } as FeatureCollection}
          interactive={false}
          style={(feature) => lookOf[kindOf(feature)]!}
        />
      )}
      <Polyline positions={lines} interactive={false} pathOptions={{ color: "#CFC7B4", weight: 1.4 }} />
      <PlaceNames features={features} districts={districtNames} />
      <ScaleControl imperial={false} position="bottomleft" />
      <Fit points={fit.length ? fit : roads.length ? roads.flat().map(([lng, lat]) => ({ lng, lat })) : [home]} />
      {children}
    </MapContainer>
  );
}

/** From which zoom on each kind has its name written, and until which. */
const namedFrom: Record<string, readonly [number, number]> = {
  water: [11, 15],
  moor: [11, 14],
  wood: [12, 15],
  river: [13, 16],
  district: [12, 15],
  street: [15, 20],
};
/** Streets are many: so many names at once are read, more are a thicket. */
const mostNames = 40;

/** Names of what is seen, as far as one is near enough to read them. */
function PlaceNames({ features, districts }: { features: readonly Feature[]; districts: boolean }) {
  const map = useMap();
  useEffect(() => {
    const names = L.layerGroup().addTo(map);
    const write = () => {
      names.clearLayers();
      const [zoom, seen] = [map.getZoom(), map.getBounds()];
      features
        .flatMap((feature) => {
          const kind = kindOf(feature);
          const [from, to] = namedFrom[kind] ?? [99, 99];
          const at = zoom < from || zoom > to || (kind === "district" && !districts) ? null : middleOf(feature);
          const name = String(feature.properties?.name ?? "");
          return at && name && seen.contains(at) ? [{ kind, name, at }] : [];
        })
        .slice(0, mostNames)
        .forEach(({ kind, name, at }) =>
          L.tooltip({ permanent: true, direction: "center", interactive: false, className: `place-name ${kind}` })
            .setLatLng(at)
            .setContent(asWords(name))
            .addTo(names),
        );
    };
    write();
    map.on("zoomend moveend", write);
    return () => {
      map.off("zoomend moveend", write);
      names.remove();
    };
  }, [map, features, districts]);
  return null;
}

/** Where a name is written: the middle of a line, the centre of an area, the spot itself. */
function middleOf({ geometry }: Feature): [number, number] | null {
  if (geometry.type === "Point") return latLng(geometry.coordinates);
  if (geometry.type === "LineString") return latLng(geometry.coordinates[Math.floor(geometry.coordinates.length / 2)]!);
  if (geometry.type !== "Polygon") return null;
  const ring = geometry.coordinates[0]!;
  const mean = (axis: number) => ring.reduce((sum, at) => sum + at[axis]!, 0) / ring.length;
  return [mean(1), mean(0)];
}
const latLng = ([lng, lat]: Position): [number, number] => [lat!, lng!];

/** As an element: names are somebody's words, and never read as HTML. */
function asWords(name: string): HTMLElement {
  const element = document.createElement("span");
  element.textContent = name;
  return element;
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
