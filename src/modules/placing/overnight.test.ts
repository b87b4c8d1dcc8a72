import { epochMinute } from "@/core/time/local";
import { personActor } from "@/core/people/permissions";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { saveBookingRules } from "@/modules/placing/operations/booking-rules";
import { saveOpening } from "@/modules/placing/operations/opening";
import { saveZone } from "@/modules/place/operations/save-zone";
import { saveTechnician } from "@/modules/team/operations/save-technician";
import { ownViews } from "@/registry/modules";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { fieldDay } from "@/modules/visits/views/field";
import { office, one, saidOf, smallWorld } from "@demo/small-world";
import { moveVisit } from "./operations/move-visit";

const week = [0, 1, 2, 3, 4];
const zone = "Europe/Lisbon";

/** Somebody comes at night: from eight in the evening to two in the morning. */
function atNight() {
  const world = smallWorld();
  const hours = (opens: number, closes: number) => week.map((weekday) => ({ weekday, opens, closes }));
  for (const id of world.technicians)
    mustPerform(
      world.hogar,
      saveTechnician,
      {
        id,
        name: `Somebody ${id}`,
        phone: "+1 555 0111",
        skills: [{ name: "sweep", level: 1, validUntil: null }],
        hours: hours(1200, 1560),
      },
      office,
    );
  mustPerform(world.hogar, saveOpening, { hours: hours(1200, 1560) }, office);
  mustPerform(
    world.hogar,
    saveZone,
    {
      id: 1,
      name: "Harbourside",
      postcodes: ["MW 1*"],
      weekdays: 127,
      serveFrom: 1200,
      serveTo: 1560,
      noticeMinutes: 0,
      surchargeMinor: 0,
      smallestOrderMinor: 0,
    },
    office,
  );
  const windows = [{ kind: "window" as const, weekdays: 31, from: 1320, to: 1500 }];
  mustPerform(world.hogar, saveBookingRules, { windows, noticeMinutes: 60, horizonDays: 30, holdMinutes: 10 }, office);
  return world;
}
const date = "2027-03-10";
const at = (minute: number) => epochMinute(date, minute, zone);
const placed = ({ hogar }: ReturnType<typeof atNight>, visitId: number) =>
  one<{ date: string; arrives: number; leaves: number }>(hogar, "SELECT * FROM placements WHERE visit_id = ?", visitId);

it("a window that goes past midnight is offered, booked, and worked in on the date on which it begins", () => {
  const world = atNight();
  expect(world.offers().map(({ date: on, from, to }) => [on, from - at(0), to - at(0)])[0]).toEqual([date, 1320, 1500]);
  const visits = [10, 40].map((nth) => world.booked({ nth }).visitId);
  const all = visits.map((id) => placed(world, id));
  expect(all.map((one) => one.date)).toEqual([date, date]);
  expect(all.every(({ arrives, leaves }) => arrives >= at(1320) && leaves <= at(1560))).toBe(true);
});

it("what cannot be over by the end of the night is not offered", () => {
  const world = atNight();
  const [offer] = world.offers();
  const before = world.offers().length;
  for (let nth = 10; nth < 200 && world.offers().some(({ from }) => from === offer!.from); nth += 20)
    world.booked({ nth });
  expect(world.offers()).toHaveLength(before - 1);
  const last = one<{ leaves: number }>(world.hogar, "SELECT max(leaves) AS leaves FROM placements").leaves;
  expect([last > at(1440), last <= at(1560)]).toEqual([true, true]);
});

it("a visit under way after midnight is nobody's open end, and its technician still sees it", () => {
  const world = atNight();
  const { visitId } = world.booked();
  const technicianId = one<{ id: number }>(world.hogar, "SELECT technician_id AS id FROM placements").id;
  world.at(date, 1435);
  mustPerform(world.hogar, advanceVisit, { visitId, to: "on site" }, office);
  world.at("2027-03-11", 25);
  const who = personActor({ id: 9, name: "Bram Okafor", role: "technician", technicianId });
  const day = look(world.hogar, fieldDay, {}, who);
  expect(day.ok && day.value.stops.map(({ id }) => id)).toEqual([visitId]);
  const today = look(world.hogar, ownViews.today, {}, office);
  expect(today.ok && today.value.needs.filter(({ kind }) => kind === "not closed")).toEqual([]);
  mustPerform(world.hogar, advanceVisit, { visitId, to: "done" }, office);
  expect(placed(world, visitId)).toMatchObject({ arrives: at(1435), leaves: at(1440 + 25) });
});

it("is moved by hand into another night", () => {
  const world = atNight();
  const { visitId } = world.booked();
  const night = { visitId, date: "2027-03-11", fromMinute: 1380, toMinute: 1500, technicianIds: [1] };
  mustPerform(world.hogar, moveVisit, night, office);
  expect(one(world.hogar, "SELECT window_to - window_from AS long FROM visits WHERE id = ?", visitId)).toEqual({
    long: 120,
  });
});

it("hours that run into those of the day after are refused, and so is more than a day", () => {
  const world = smallWorld();
  const said = (...hours: [number, number, number][]) =>
    saidOf(
      perform(
        world.hogar,
        saveOpening,
        { hours: hours.map(([weekday, opens, closes]) => ({ weekday, opens, closes })) },
        office,
      ),
    );
  expect(said([0, 1200, 1560], [1, 60, 600])).toMatch(/overlaps 20:00 to 02:00 of another day/);
  expect(said([6, 1200, 1560], [0, 60, 600])).toMatch(/overlaps/);
  expect(said([0, 1200, 1560], [1, 120, 600])).toBe("done");
  expect(said([0, 60, 1560])).toMatch(/a day long at the most/);
});
