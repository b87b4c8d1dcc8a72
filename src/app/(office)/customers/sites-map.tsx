"use client";
import { ink } from "@/ui/palette";
import { mapName } from "@/ui/map-name";
import TownMap, { type TownShown } from "@/ui/town-map";
import { CircleMarker } from "react-leaflet";
import type { Site } from "./data";

/** Their sites on the town's map, numbered as they stand in the list. */
export default function SitesMap({ sites, ...town }: TownShown & { sites: readonly Site[] }) {
  return (
    <TownMap {...town} label="Sites on the map" height={260} fit={[...sites, town.home]}>
      {sites.map((site, i) => (
        <CircleMarker
          key={site.id}
          center={[site.lat, site.lng]}
          radius={9}
          pathOptions={{ color: ink.paper, weight: 2, fillColor: ink.pine, fillOpacity: 1 }}
          // Bound as it is made: a name is never on the map without its words.
          ref={(marker) => {
            marker?.bindTooltip(mapName(sites.length > 1 ? String(i + 1) : site.name || site.line.split(",")[0]!), {
              permanent: true,
              direction: "right",
              offset: [8, 0],
            });
          }}
        />
      ))}
    </TownMap>
  );
}
