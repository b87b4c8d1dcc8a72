import fc from "fast-check";
import { readZones, zonesAsCsv, zonesAsGeoJson } from "./zone-files";
import type { Area } from "./zones";

const square: Area = {
  type: "Polygon",
  coordinates: [
    [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1],
      [0, 0],
    ],
  ],
};

describe("zones in files", () => {
  it("come from CSV, one postcode or town a row, with a sentence for each row that cannot be used", () => {
    expect(
      readZones(
        'Zone,Postcode,Town,Priority\nNorth,MW 301-312,,2\nnorth,,Northfield,\nOld Town,"MW 201; MW 202",,\n,MW 9,,\nEast,MW@1,,x\n',
      ),
    ).toEqual({
      zones: [
        { name: "North", postcodes: ["MW 301-312"], towns: ["Northfield"], priority: 2 },
        { name: "Old Town", postcodes: ["MW 201", "MW 202"] },
      ],
      problems: [
        "Row 5: the zone has no name.",
        "Row 6: “MW@1” is not a postcode. Write MW 101, a range MW 101-109, or a beginning MW 1*.",
        "Row 6: the priority is a whole number from -100 to 100.",
      ],
    });
    expect(readZones("a;b\n1;2").problems).toEqual([
      "The first line must name the columns: zone, and postcode or town.",
    ]);
  });

  it("come from GeoJSON, areas only", () => {
    const feature = (name: string | null, geometry: unknown) => ({
      type: "Feature",
      properties: name ? { name } : null,
      geometry,
    });
    const file = JSON.stringify({
      type: "FeatureCollection",
      features: [
        feature("Harbour", square),
        feature(null, { ...square }),
        feature("Quay", { type: "Point", coordinates: [0, 0] }),
      ],
    });
    expect(readZones(file)).toEqual({
      zones: [
        { name: "Harbour", area: square },
        { name: "Zone 2", area: square },
      ],
      problems: ["Quay: is a Point, not an area."],
    });
    expect(readZones("{ half").problems[0]).toMatch(/cannot be read to its end/);
  });

  it("come back as they went out", () => {
    const text = fc.stringMatching(/^[A-Za-z][A-Za-z ",é]{0,18}[a-z]$/);
    const zone = fc.record({
      name: text,
      postcodes: fc.uniqueArray(fc.constantFrom("MW 101", "MW 2*", "MW 301-309"), { minLength: 1 }),
      towns: fc.uniqueArray(fc.constantFrom("Old Town", "Northfield", "Gull, Island")),
      priority: fc.integer({ min: -100, max: 100 }),
    });
    fc.assert(
      fc.property(
        fc.uniqueArray(zone, { minLength: 1, maxLength: 5, selector: (z) => z.name.toLowerCase() }),
        fc.boolean(),
        (zones, drawn) => {
          const same = (read: ReturnType<typeof readZones>) => read.zones.map((z) => ({ ...z, towns: z.towns ?? [] }));
          expect(same(readZones(zonesAsCsv(zones)))).toEqual(zones);
          const withArea = zones.map((z) => ({ ...z, area: drawn ? square : null }));
          expect(same(readZones(zonesAsGeoJson(withArea)))).toEqual(
            withArea.map(({ area, ...z }) => ({ ...z, ...(area && { area }) })),
          );
        },
      ),
    );
  });
});
