"use client";
import type { Point } from "@/core/place/points";
import type { Area } from "@/core/place/zones";
import { hues, ink } from "@/ui/palette";
import { mapName } from "@/ui/map-name";
import TownMap from "@/ui/town-map";
import type { LayerGroup, Map as LeafletMap } from "leaflet";
import L from "leaflet";
import { useEffect, useRef, useState } from "react";
import { CircleMarker, GeoJSON, Tooltip } from "react-leaflet";
import { TerraDraw, TerraDrawPolygonMode, TerraDrawSelectMode } from "terra-draw";
import { TerraDrawLeafletAdapter } from "terra-draw-leaflet-adapter";
import type { MapData } from "../data";

interface ShownZone {
  id: number;
  name: string;
  area: Area | null;
  visits: number;
}

interface ZoneMapProps {
  map: MapData;
  zones: readonly ShownZone[];
  /** The zone that is open: drawn strongly, and edited where `onArea` is given. */
  chosen: number | "new" | null;
  area?: Area | null;
  drawing?: boolean;
  onArea?: (area: Area | null) => void;
  onChoose?: (id: number) => void;
  customers: boolean;
  load: boolean;
  mark?: Point | null;
}

/** Zones on the business's own map, with customers, how busy each zone is, and who lies outside. */
export default function ZoneMap({
  map,
  zones,
  chosen,
  area = null,
  drawing = false,
  onArea,
  onChoose,
  customers,
  load,
  mark,
}: ZoneMapProps) {
  const [leaflet, setLeaflet] = useState<LeafletMap | null>(null);
  // The zone that was open when the map opened fills it; drawing does not move the ground.
  const [fit] = useState(() =>
    partsOf(area)
      .flatMap((rings) => rings[0] ?? [])
      .map(([lng, lat]) => ({ lng: lng!, lat: lat! })),
  );
  const busiest = Math.max(1, ...zones.map((z) => z.visits));
  const names = useRef<LayerGroup | null>(null);
  useEffect(() => {
    if (!leaflet) return;
    const write = () => {
      names.current?.remove();
      names.current = L.layerGroup(namesOn(leaflet, zones, map, load)).addTo(leaflet);
    };
    write();
    leaflet.on("zoomend", write);
    return () => void leaflet.off("zoomend", write);
  }, [leaflet, zones, load, map]);

  return (
    <TownMap
      home={map.home}
      town={map.town}
      roads={map.roads}
      label="Map of the zones"
      height="clamp(300px, 46vh, 520px)"
      fit={fit}
      districtNames={false}
      onReady={setLeaflet}
    >
      {zones
        .filter((z) => z.area && z.id !== chosen)
        .map((zone) => (
          <GeoJSON
            key={`${zone.id} ${load} ${JSON.stringify(zone.area).length}`}
            data={zone.area!}
            eventHandlers={{ click: () => onChoose?.(zone.id) }}
            style={{
              color: hues[zone.id % 8],
              weight: 1.5,
              fillColor: load ? ink.pine : hues[zone.id % 8],
              fillOpacity: load ? 0.08 + (0.5 * zone.visits) / busiest : 0.16,
            }}
          />
        ))}
      {area && !drawing && (
        <GeoJSON
          key={JSON.stringify(area)}
          data={area}
          style={{ color: ink.pine, weight: 3, fillColor: ink.pine, fillOpacity: 0.16 }}
          interactive={false}
        />
      )}
      {customers &&
        map.customers.map((c, i) => (
          <CircleMarker
            key={i}
            center={[c.lat, c.lng]}
            radius={c.zoneId === null ? 5 : 3}
            pathOptions={
              c.zoneId === null
                ? { color: ink.ember, weight: 2, fillOpacity: 0 }
                : {
                    color: ink.pine,
                    weight: 0,
                    fillColor: chosen === c.zoneId ? ink.lake : ink.pine,
                    fillOpacity: 0.75,
                  }
            }
          >
            <Tooltip>
              {c.name}, {c.line}
              {c.zoneId === null && ": outside all zones"}
            </Tooltip>
          </CircleMarker>
        ))}
      {customers &&
        map.requests.map((r) => (
          <CircleMarker
            key={`request ${r.id}`}
            center={[r.lat, r.lng]}
            radius={6}
            pathOptions={{ color: ink.honey, weight: 3, fillOpacity: 0 }}
          >
            <Tooltip>
              {r.name} asked, {r.address}
            </Tooltip>
          </CircleMarker>
        ))}
      {mark && (
        <CircleMarker
          center={[mark.lat, mark.lng]}
          radius={8}
          pathOptions={{ color: ink.paper, weight: 2, fillColor: ink.ember, fillOpacity: 1 }}
        />
      )}
      {leaflet && drawing && onArea && <Drawing map={leaflet} area={area} onArea={onArea} />}
    </TownMap>
  );
}

/** The pen: corners are set by clicks, and moved, added or taken away afterwards. */
function Drawing({ map, area, onArea }: { map: LeafletMap; area: Area | null; onArea: (area: Area | null) => void }) {
  const told = useRef(onArea);
  told.current = onArea;
  const begun = useRef(area);
  useEffect(() => {
    const style = {
      fillColor: ink.pine as `#${string}`,
      fillOpacity: 0.18,
      outlineColor: ink.pine as `#${string}`,
      outlineWidth: 3,
    };
    const draw = new TerraDraw({
      adapter: new TerraDrawLeafletAdapter({ lib: L, map, coordinatePrecision: 6 }),
      modes: [
        new TerraDrawPolygonMode({ styles: { ...style, closingPointColor: ink.ember } }),
        new TerraDrawSelectMode({
          flags: {
            polygon: {
              feature: { draggable: true, coordinates: { draggable: true, deletable: true, midpoints: true } },
            },
          },
          styles: {
            selectedPolygonColor: ink.pine,
            selectedPolygonOutlineColor: ink.pine,
            selectedPolygonOutlineWidth: 3,
            selectionPointColor: "#ffffff",
            selectionPointOutlineColor: ink.pine,
            selectionPointOutlineWidth: 2,
            selectionPointWidth: 6,
            midPointColor: ink.honey,
            midPointOutlineColor: ink.pine,
          },
        }),
      ],
    });
    draw.start();
    const begin = partsOf(begun.current);
    if (begin.length) {
      const added = draw.addFeatures(
        begin.map((coordinates) => ({
          type: "Feature",
          properties: { mode: "polygon" },
          geometry: { type: "Polygon", coordinates },
        })),
      );
      draw.setMode("select");
      const first = added.find((a) => a.valid)?.id;
      if (first !== undefined) draw.selectFeature(first);
    } else draw.setMode("polygon");
    const tell = () =>
      told.current(
        areaOf(
          draw
            .getSnapshot()
            .flatMap((f) =>
              f.geometry.type === "Polygon" && f.properties.mode === "polygon" && !f.properties.currentlyDrawing
                ? [f.geometry.coordinates]
                : [],
            ),
        ),
      );
    draw.on("finish", (id, { action }) => {
      if (action === "draw") {
        draw.setMode("select");
        draw.selectFeature(id);
      }
      tell();
    });
    return () => draw.stop();
  }, [map]);
  return null;
}

type Rings = number[][][];
const partsOf = (area: Area | null): Rings[] =>
  area === null ? [] : area.type === "Polygon" ? [area.coordinates] : area.coordinates;
const areaOf = (parts: Rings[]): Area | null =>
  parts.length === 0
    ? null
    : parts.length === 1
      ? { type: "Polygon", coordinates: parts[0]! }
      : { type: "MultiPolygon", coordinates: parts };

/** Above the northern edge of an area: the name stands beside it and hides nothing. */
function edgeOf(area: Area | null): Point | null {
  const corners = partsOf(area).flatMap((rings) => rings[0] ?? []);
  const middle = meanOf(corners.map(([lng, lat]) => ({ lng: lng!, lat: lat! })));
  return middle && { lng: middle.lng, lat: Math.max(...corners.map(([, lat]) => lat!)) };
}
const meanOf = (points: readonly Point[]): Point | null =>
  points.length
    ? {
        lng: points.reduce((s, p) => s + p.lng, 0) / points.length,
        lat: points.reduce((s, p) => s + p.lat, 0) / points.length,
      }
    : null;

/** The names of the zones; two that would lie over one another go to either side. */
function namesOn(leaflet: LeafletMap, zones: readonly ShownZone[], map: MapData, load: boolean): L.Tooltip[] {
  const placed = zones.flatMap((zone) => {
    const centre = edgeOf(zone.area) ?? meanOf(map.customers.filter((c) => c.zoneId === zone.id));
    return centre ? [{ zone, centre, at: leaflet.latLngToContainerPoint([centre.lat, centre.lng]) }] : [];
  });
  return placed.map(({ zone, centre, at }) => {
    const near = placed.find(
      (other) => other.zone !== zone && Math.abs(other.at.y - at.y) < 22 && Math.abs(other.at.x - at.x) < 120,
    );
    const direction = !near ? "top" : near.at.x > at.x ? "left" : "right";
    return L.tooltip({ permanent: true, direction, className: "zone-name", interactive: false })
      .setLatLng([centre.lat, centre.lng])
      .setContent(label(zone, load));
  });
}

const label = ({ name, visits }: ShownZone, load: boolean): HTMLElement =>
  mapName(load ? `${name}: ${visits} ${visits === 1 ? "visit" : "visits"}` : name);
