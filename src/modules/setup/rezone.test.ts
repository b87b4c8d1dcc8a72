import { mustPerform } from "@/kernel/operation";
import { saveZone, setZoneAside } from "@/modules/place/operations/save-zone";
import { runDue } from "@/worker/loop";
import { office, one, smallWorld } from "@demo/small-world";

it("a zone that takes another's place takes its customers, and what is promised to them", async () => {
  const world = smallWorld();
  const { visitId } = world.booked();
  mustPerform(world.hogar, setZoneAside, { id: 1 }, office);
  const { id } = mustPerform(
    world.hogar,
    saveZone,
    {
      id: null,
      name: "The whole harbour",
      postcodes: ["MW*"],
      weekdays: 127,
      serveFrom: 0,
      serveTo: 1440,
      noticeMinutes: 0,
      surchargeMinor: 0,
      smallestOrderMinor: 0,
    },
    office,
  );
  await runDue(world.hogar);
  expect([
    one(world.hogar, "SELECT zone_id FROM sites"),
    one(world.hogar, "SELECT zone_id FROM visits WHERE id = ?", visitId),
    one(world.hogar, "SELECT zoned_to FROM business"),
  ]).toEqual([{ zone_id: id }, { zone_id: id }, { zoned_to: null }]);
});
