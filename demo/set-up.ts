import type { Actor, Role } from "@/core/people/permissions";
import type { Area } from "@/core/place/zones";
import { addDays } from "@/core/time/dates";
import type { Hogar } from "@/kernel/hogar";
import { mustPerform } from "@/kernel/operation";
import { openBusiness } from "@/modules/business/open-business";
import { saveBusiness } from "@/modules/business/operations/save-business";
import { saveCoupon } from "@/modules/catalogue/operations/save-coupon";
import { saveExtra } from "@/modules/catalogue/operations/save-extra";
import { orderServices, saveService } from "@/modules/catalogue/operations/save-service";
import { saveDirectory } from "@/modules/front-door/operations/save-directory";
import { saveFrontDoor } from "@/modules/front-door/operations/save-front-door";
import { addSource } from "@/modules/front-door/operations/sources";
import { handIncoming } from "@/modules/people/operations/hand-incoming";
import { savePerson } from "@/modules/people/operations/save-person";
import { type ImagePurpose, takeImage } from "@/modules/pictures/images";
import { saveZone } from "@/modules/place/operations/save-zone";
import { saveBookingRules } from "@/modules/placing/operations/booking-rules";
import { saveOpening, saveSpecialDay } from "@/modules/placing/operations/opening";
import { recordErrand, recordTimeOff } from "@/modules/team/operations/absences";
import { saveTechnician } from "@/modules/team/operations/save-technician";
import { portrait, townPicture, workPicture } from "./drawings";
import * as marrowick from "./marrowick";

/** Who types all this in. */
export const office: Actor = { kind: "system", name: "demo" };

export async function setUp(hogar: Hogar, today: string): Promise<void> {
  const places = hogar.town!.addresses;
  const depot = places[0]!;
  openBusiness(
    hogar,
    { ...marrowick.business, place: { lng: depot.lng, lat: depot.lat }, demo: true },
    { ...marrowick.people[0], password: marrowick.demoPassword },
  );
  const { name, phone, mail } = marrowick.business;
  mustPerform(
    hogar,
    saveBusiness,
    {
      name,
      phone,
      mail,
      ...marrowick.details,
      place: { lng: depot.lng, lat: depot.lat, line: `${depot.line}, ${depot.postcode}` },
    },
    office,
  );
  const drawn = new Map(
    hogar
      .town!.features.features.map((f) => f as { properties: { kind: string; name: string }; geometry: Area })
      .filter((f) => f.properties.kind === "district")
      .map((f) => [f.properties.name, f.geometry]),
  );
  const kept = async (purpose: ImagePurpose, drawn: Promise<Buffer> | null): Promise<string | null> => {
    const taken = drawn && (await takeImage(hogar, office, purpose, await drawn));
    return taken?.ok ? taken.value.token : null;
  };
  for (const zone of marrowick.zones)
    // Moor Edge goes by postcodes alone, and not as far as its last one.
    mustPerform(
      hogar,
      saveZone,
      {
        area: zone.name === "Moor Edge" ? null : (drawn.get(zone.name) ?? null),
        id: null,
        serveFrom: 7 * 60,
        serveTo: 19 * 60,
        noticeMinutes: 0,
        surchargeMinor: 0,
        smallestOrderMinor: 0,
        ...zone,
      },
      office,
    );
  const technicianIds = new Map<string, number>();
  for (const { name, phone, skills, hours, home } of marrowick.technicians) {
    const { lng, lat, line, postcode } = places.find((place) => place.postcode === home) ?? depot;
    const held = skills.map(({ name, level = 1, untilDays }) => ({
      name,
      level,
      validUntil: untilDays === undefined ? null : addDays(today, untilDays),
    }));
    technicianIds.set(
      name,
      mustPerform(
        hogar,
        saveTechnician,
        {
          id: null,
          name,
          phone,
          skills: held,
          hours,
          start: { lng, lat, line: `${line}, ${postcode}` },
          mail: `${name.split(" ")[0]!.toLowerCase()}@marrowick.example`,
          pay: marrowick.pay[name],
          photo: await kept("technician", portrait(name)),
        },
        office,
      ).id,
    );
  }
  mustPerform(
    hogar,
    saveTechnician,
    {
      id: null,
      ...marrowick.subcontractor,
      skills: marrowick.subcontractor.skills.map((s) => ({ ...s, validUntil: null })),
      kind: "subcontractor",
      offered: false,
    },
    office,
  );
  const extras = marrowick.extras.map(({ on, ...extra }) => ({
    on,
    id: mustPerform(hogar, saveExtra, { id: null, active: true, ...extra }, office).id,
  }));
  for (const {
    code,
    name,
    category,
    description,
    priceMinor,
    taxBp,
    minutes,
    afterMinutes = 0,
    crew = 1,
    days = 1,
    noticeMinutes = 0,
    workPlace = "site" as const,
    seats = 0,
    begins,
    skills,
    deposit,
  } of marrowick.services)
    mustPerform(
      hogar,
      saveService,
      {
        id: null,
        active: true,
        beforeMinutes: 0,
        code,
        name,
        category,
        description,
        priceMinor,
        taxBp,
        minutes,
        afterMinutes,
        workPlace,
        seats,
        ...(begins && {
          windows: [{ kind: "exact", weekdays: begins.weekdays, from: begins.at, to: begins.at, step: 60 }],
        }),
        crew,
        days,
        noticeMinutes,
        skills,
        deposit,
        questions: marrowick.questions[code] ?? [],
        checklist: marrowick.checklists[code] ?? [],
        picture: await kept("service", workPicture(code)),
        ...marrowick.terms[code],
        extras: extras.filter((x) => x.on.includes(code)).map(({ id }) => ({ id, most: 10 })),
      },
      office,
    );
  const ofCategory = (name: string) =>
    hogar.store
      .sql<{ id: number }>("SELECT id FROM services WHERE category = ? ORDER BY price_minor")
      .all(name)
      .map((s) => s.id);
  mustPerform(
    hogar,
    orderServices,
    { categories: marrowick.categories.map((name) => ({ name, was: name, services: ofCategory(name) })) },
    office,
  );
  mustPerform(
    hogar,
    saveBookingRules,
    { windows: marrowick.windows, noticeMinutes: 120, horizonDays: 42, holdMinutes: 10, outside: "request" },
    office,
  );
  mustPerform(hogar, saveDirectory, { listed: true, kinds: marrowick.kinds }, office);
  mustPerform(hogar, saveFrontDoor, { ...marrowick.frontDoor, picture: await kept("door", townPicture()) }, office);
  mustPerform(hogar, saveOpening, { hours: marrowick.openingHours }, office);
  const special = (title: string, inDays: number, yearly: boolean, spans: { opens: number; closes: number }[]) =>
    mustPerform(
      hogar,
      saveSpecialDay,
      { id: null, name: title, first: addDays(today, inDays), last: addDays(today, inDays), yearly, spans },
      office,
    );
  special("Harbour fair", 17, false, []);
  special("Founders’ day", 30, true, []);
  special("Stocktaking", 24, false, [{ opens: 12 * 60, closes: 18 * 60 }]);
  for (const { name, mail, role } of marrowick.people.slice(1))
    mustPerform(
      hogar,
      savePerson,
      {
        id: null,
        name,
        mail,
        role: role as Role,
        password: marrowick.demoPassword,
        technicianId: technicianIds.get(name) ?? null,
        active: true,
      },
      office,
    );
  for (const name of marrowick.sources) mustPerform(hogar, addSource, { name }, office);
  mustPerform(
    hogar,
    saveCoupon,
    { id: null, ...marrowick.coupon, services: ofCategory("Sweeping"), first: null, last: addDays(today, 40) },
    office,
  );
  const tomas = hogar.store.sql<{ id: number }>("SELECT id FROM people WHERE name = 'Tomas Quill'").get()!;
  mustPerform(hogar, handIncoming, { personId: tomas.id }, office);
  const away = (name: string, from: number, to: number, reason: string) =>
    mustPerform(
      hogar,
      recordTimeOff,
      { technicianId: technicianIds.get(name)!, firstDate: addDays(today, from), lastDate: addDays(today, to), reason },
      office,
    );
  away("Hanna Sorel", 9, 13, "Holiday");
  away("Yusuf Demir", 20, 22, "Training");
  const [petra, yusuf] = [technicianIds.get("Petra Lindqvist")!, technicianIds.get("Yusuf Demir")!];
  mustPerform(
    hogar,
    recordTimeOff,
    {
      technicianId: petra,
      firstDate: addDays(today, 2),
      lastDate: addDays(today, 2),
      reason: "School meeting",
      fromMinute: 15 * 60,
      toMinute: 17 * 60,
    },
    office,
  );
  mustPerform(
    hogar,
    recordErrand,
    {
      technicianId: yusuf,
      date: addDays(today, 1),
      fromMinute: 10 * 60,
      toMinute: 11 * 60,
      title: "Van to the garage",
      addressId: places.find((p) => p.postcode === "MW 107")!.id,
    },
    office,
  );
}
