import { mustPerform, perform, viewContext } from "@/kernel/operation";
import { saveZone, setZoneAside, takeZones } from "@/modules/place/operations/save-zone";
import { zoneOf } from "@/modules/place/zones";
import { office, saidOf, smallWorld, visitor } from "@demo/small-world";

const date = "2027-03-10";

describe("zones", () => {
  const terms = {
    weekdays: 127,
    serveFrom: 0,
    serveTo: 1440,
    noticeMinutes: 0,
    surchargeMinor: 0,
    smallestOrderMinor: 0,
  };
  const around = ({ lng, lat }: { lng: number; lat: number }, by: number) => ({
    type: "Polygon" as const,
    coordinates: [
      [
        [lng - by, lat - by],
        [lng + by, lat - by],
        [lng + by, lat + by],
        [lng - by, lat + by],
        [lng - by, lat - by],
      ],
    ],
  });

  it("are found by area, town and priority, and come back when saved again after they were archived", () => {
    const world = smallWorld();
    const address = world.addresses[10]!;
    const where = () => zoneOf(viewContext(world.hogar, visitor), address)?.name ?? null;
    const { id } = mustPerform(
      world.hogar,
      saveZone,
      { id: null, name: "Quay", postcodes: [], towns: ["harbourside"], ...terms },
      office,
    );
    expect(where()).toBe("Harbourside");
    mustPerform(
      world.hogar,
      saveZone,
      { id, name: "Quay", postcodes: [], towns: ["harbourside"], priority: 1, ...terms },
      office,
    );
    expect(where()).toBe("Quay");
    mustPerform(world.hogar, setZoneAside, { id }, office);
    expect(where()).toBe("Harbourside");
    expect(
      mustPerform(
        world.hogar,
        saveZone,
        { id: null, name: "quay", postcodes: [], area: around(address, 0.001), ...terms },
        office,
      ).id,
    ).toBe(id);
    expect(where()).toBe("quay");
  });

  it("need to be somewhere, with an area that closes", () => {
    const world = smallWorld();
    expect(
      saidOf(perform(world.hogar, saveZone, { id: null, name: "Nowhere", postcodes: [], ...terms }, office)),
    ).toMatch(/^Say where the zone is/);
    expect(
      saidOf(
        perform(
          world.hogar,
          saveZone,
          {
            id: null,
            name: "Open",
            postcodes: [],
            area: {
              type: "Polygon",
              coordinates: [
                [
                  [0, 0],
                  [1, 0],
                  [1, 1],
                  [0, 2],
                ],
              ],
            },
            ...terms,
          },
          office,
        ),
      ),
    ).toBe("An area must end where it begins.");
  });

  it("of a file are made or changed by name, all or none", () => {
    const world = smallWorld();
    expect(
      mustPerform(
        world.hogar,
        takeZones,
        {
          zones: [
            { name: "harbourside", priority: 3 },
            { name: "Moor", postcodes: ["MW 4*"] },
          ],
        },
        office,
      ),
    ).toEqual({ made: 1, changed: 1 });
    expect(world.setUp().zones.map((z) => [z.name, z.priority, z.postcodes])).toEqual([
      ["Harbourside", 3, ["MW 1*"]],
      ["Moor", 0, ["MW 4*"]],
    ]);
    expect(
      perform(
        world.hogar,
        takeZones,
        {
          zones: [
            { name: "East", postcodes: ["MW 5*"] },
            { name: "Odd", postcodes: ["MW@"] },
          ],
        },
        office,
      ),
    ).toMatchObject({ ok: false });
    expect(world.setUp().zones).toHaveLength(2);
  });

  it("with a ferry take longer to drive into", () => {
    const world = smallWorld();
    const arrival = () => world.offers(world.services.sweep, 40).find((o) => o.date === date && o.offered);
    const before = arrival();
    mustPerform(
      world.hogar,
      saveZone,
      { id: 1, name: "Harbourside", postcodes: ["MW 1*"], extraMinutes: 25, ...terms },
      office,
    );
    const after = arrival();
    expect(
      before?.offered && after?.offered && after.technicians[0]!.extraDriving - before.technicians[0]!.extraDriving,
    ).toBe(50);
  });
});
