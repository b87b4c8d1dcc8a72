import type { Feature, FeatureCollection } from "geojson";
import Papa from "papaparse";
import { patternProblem } from "./postcodes";
import { type Area, areaProblem } from "./zones";

/** A zone as files have it; what a file does not say is left out. */
export interface FiledZone {
  name: string;
  postcodes?: string[];
  towns?: string[];
  area?: Area;
  priority?: number;
}

/** What was read of a file: zones, and sentences for what could not be used, with where it stands. */
export interface ReadZones {
  zones: FiledZone[];
  problems: string[];
}

/**
 * Zones of a file, GeoJSON (RFC 7946) or CSV (RFC 4180), told apart by how it begins. GeoJSON: one
 * feature a zone, its name in the property `name`; `postcodes` and `towns` may stand beside it. CSV:
 * the columns `zone`, `postcode`, `town`, `priority`, one postcode or town a row.
 */
export const readZones = (text: string): ReadZones => (/^\s*[{[]/.test(text) ? readGeoJson(text) : readCsv(text));

function readGeoJson(text: string): ReadZones {
  let found: unknown;
  try {
    found = JSON.parse(text);
  } catch {
    return { zones: [], problems: ["The file begins like GeoJSON but cannot be read to its end."] };
  }
  const features =
    (found as FeatureCollection).type === "FeatureCollection"
      ? (found as FeatureCollection).features
      : (found as Feature).type === "Feature"
        ? [found as Feature]
        : [];
  if (!Array.isArray(features) || features.length === 0)
    return { zones: [], problems: ["There is no feature in this file."] };
  const zones: FiledZone[] = [];
  const problems: string[] = [];
  for (const [i, { geometry, properties }] of features.entries()) {
    const said = properties ?? {};
    const name =
      String(said.name ?? said.Name ?? said.title ?? "")
        .trim()
        .slice(0, 80) || `Zone ${i + 1}`;
    const area = geometry?.type === "Polygon" || geometry?.type === "MultiPolygon" ? (geometry as Area) : undefined;
    const postcodes = textsOf(said.postcodes);
    const towns = textsOf(said.towns);
    const odd = area
      ? areaProblem(area)
      : postcodes || towns
        ? null
        : `is a ${geometry?.type ?? "nothing"}, not an area.`;
    if (odd) problems.push(`${name}: ${odd}`);
    else
      zones.push({
        name,
        ...(area && { area: { type: area.type, coordinates: area.coordinates } as Area }),
        ...(postcodes && { postcodes }),
        ...(towns && { towns }),
        ...(Number.isInteger(said.priority) && { priority: said.priority as number }),
      });
  }
  return { zones, problems };
}

const textsOf = (value: unknown): string[] | undefined =>
  Array.isArray(value)
    ? value.map(String)
    : typeof value === "string" && value.trim()
      ? value
          .split(/[;,]/)
          .map((v) => v.trim())
          .filter(Boolean)
      : undefined;

function readCsv(text: string): ReadZones {
  const { data, meta } = Papa.parse<Record<string, string>>(text, {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (header) => header.trim().toLowerCase(),
  });
  const column = (...names: string[]) => names.find((name) => meta.fields?.includes(name));
  const [named, postcode, town, priority] = [
    column("zone", "name"),
    column("postcode", "postcodes", "zip"),
    column("town", "city"),
    column("priority"),
  ];
  if (!named || (!postcode && !town))
    return { zones: [], problems: ["The first line must name the columns: zone, and postcode or town."] };
  const zones = new Map<string, FiledZone>();
  const problems: string[] = [];
  for (const [i, row] of data.entries()) {
    const line = `Row ${i + 2}`;
    const name = row[named]?.trim();
    if (!name) {
      problems.push(`${line}: the zone has no name.`);
      continue;
    }
    const zone = zones.get(name.toLowerCase()) ?? { name };
    zones.set(name.toLowerCase(), zone);
    for (const pattern of (postcode ? (row[postcode] ?? "") : "")
      .split(/[;,]/)
      .map((p) => p.trim())
      .filter(Boolean)) {
      const odd = patternProblem(pattern);
      if (odd) problems.push(`${line}: ${odd}`);
      else if (!zone.postcodes?.includes(pattern)) (zone.postcodes ??= []).push(pattern);
    }
    const place = town && row[town]?.trim();
    if (place && !zone.towns?.includes(place)) (zone.towns ??= []).push(place);
    const rank = priority ? Number(row[priority]) : NaN;
    if (priority && row[priority]?.trim()) {
      if (Number.isInteger(rank) && Math.abs(rank) <= 100) zone.priority = rank;
      else problems.push(`${line}: the priority is a whole number from -100 to 100.`);
    }
  }
  return { zones: [...zones.values()].filter((z) => z.postcodes?.length || z.towns?.length), problems };
}

/** Zones as GeoJSON: a feature each; those without an area have no geometry, but their postcodes and towns. */
export const zonesAsGeoJson = (zones: readonly (Required<Omit<FiledZone, "area">> & { area: Area | null })[]): string =>
  JSON.stringify(
    {
      type: "FeatureCollection",
      features: zones.map(({ area, ...properties }) => ({ type: "Feature", properties, geometry: area })),
    },
    null,
    2,
  );

/** Zones as CSV: a row for each postcode and each town. Areas cannot stand in it. */
export const zonesAsCsv = (zones: readonly Required<Omit<FiledZone, "area">>[]): string =>
  // A cell that a spreadsheet would take for a formula is marked as text.
  Papa.unparse(
    {
      fields: ["zone", "postcode", "town", "priority"],
      data: zones.flatMap((z) => [
        ...z.postcodes.map((p) => [z.name, p, "", z.priority]),
        ...z.towns.map((t) => [z.name, "", t, z.priority]),
      ]),
    },
    { escapeFormulae: true },
  );
