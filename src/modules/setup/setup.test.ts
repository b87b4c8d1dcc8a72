import { personActor } from "@/core/people/permissions";
import { mustPerform, perform, viewContext } from "@/kernel/operation";
import { rehearse } from "@/kernel/rehearse";
import { look } from "@/kernel/view";
import { saveBusiness } from "@/modules/business/operations/save-business";
import { duplicateService, orderServices, saveService } from "@/modules/catalogue/operations/save-service";
import { priceHistory } from "@/modules/catalogue/views/price-history";
import { customers } from "@/modules/customers/views/customers";
import { servicesAt } from "@/modules/front-door/views/front-door";
import { incoming } from "@/modules/incoming/views/incoming";
import { handIncoming } from "@/modules/people/operations/hand-incoming";
import { savePerson } from "@/modules/people/operations/save-person";
import { saveZone, setZoneAside, takeZones } from "@/modules/place/operations/save-zone";
import { zoneOf } from "@/modules/place/zones";
import { changeBookingRules } from "@/modules/placing/booking-rules";
import { saveBookingRules } from "@/modules/placing/operations/booking-rules";
import { saveOpening, saveSpecialDay, takeSpecialDays } from "@/modules/placing/operations/opening";
import { answerRequests, makeRequest } from "@/modules/requests/operations/requests";
import { saveTechnician, setTechnicianActive } from "@/modules/team/operations/save-technician";
import { todayView } from "@/modules/today/views/today";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { visitSheet } from "@/modules/visits/views/visit-sheet";
import { firstPage } from "@/ui/first-page";
import { office, one, smallWorld, system, visitor } from "@demo/small-world";
import fc from "fast-check";
import { previewWindows } from "./views/preview-windows";
import { setup } from "./views/setup";

const date = "2027-03-10";
const problem = (result: ReturnType<typeof perform>) =>
  result.ok ? "done" : (Object.values(result.problem.fields ?? {})[0] ?? result.problem.sentence);
const business = {
  name: "Marrowick Hearth & Flue",
  phone: "+1 555 0100",
  mail: "office@marrowick.example",
  paymentDays: 14,
  reminderHours: 24,
  messageFrom: 480,
  messageTo: 1200,
  travelMarginMinutes: 2,
  travelMarginPercent: 10,
};
const dataOf = (world: ReturnType<typeof smallWorld>) => {
  const result = look(world.hogar, setup, {}, office);
  if (!result.ok) throw new Error(result.problem.sentence);
  return result.value;
};

describe("opening hours", () => {
  it("leave only the windows within them, and special days none", () => {
    const world = smallWorld();
    const starts = () => world.offers().filter((o) => o.date === date).length;
    expect(starts()).toBe(4);
    mustPerform(
      world.hogar,
      saveOpening,
      { hours: [0, 1, 2, 3, 4].map((weekday) => ({ weekday, opens: 540, closes: 780 })) },
      office,
    );
    expect(starts()).toBe(2);
    mustPerform(
      world.hogar,
      saveSpecialDay,
      { id: null, name: "Harbour fair", first: date, last: date, yearly: false, spans: [{ opens: 540, closes: 660 }] },
      office,
    );
    expect(starts()).toBe(1);
    expect(
      problem(
        perform(
          world.hogar,
          saveSpecialDay,
          { id: null, name: "Backwards", first: date, last: "2027-03-09", yearly: false, spans: [] },
          office,
        ),
      ),
    ).toBe("The last day is not before the first.");
  });

  it("leave promised visits alone, and say how many there are; a file taken twice adds nothing", () => {
    const world = smallWorld();
    world.booked();
    const days = [{ name: "Harbour fair", first: "2027-03-10", last: "2027-03-12", yearly: false, spans: [] }];
    expect(mustPerform(world.hogar, takeSpecialDays, { days }, office)).toEqual({ taken: 1, known: 0, promised: 1 });
    expect(mustPerform(world.hogar, takeSpecialDays, { days }, office)).toEqual({ taken: 0, known: 1, promised: 0 });
    expect(one(world.hogar, "SELECT state FROM visits WHERE job_id IS NOT NULL")).toEqual({ state: "promised" });
    expect(world.offers()).toEqual([]);
  });
});

describe("the business", () => {
  it("keeps its currency once work is priced and its time zone once it is promised", () => {
    const world = smallWorld();
    mustPerform(
      world.hogar,
      saveBusiness,
      { ...business, currency: "SEK", taxRates: [{ name: "Standard", rateBp: 2500 }] },
      office,
    );
    world.booked();
    expect(problem(perform(world.hogar, saveBusiness, { ...business, currency: "EUR" }, office))).toBe(
      "Work is priced in SEK already, so the currency stays.",
    );
    expect(problem(perform(world.hogar, saveBusiness, { ...business, timeZone: "Europe/Paris" }, office))).toMatch(
      /so it stays/,
    );
    expect(
      problem(
        perform(
          world.hogar,
          saveBusiness,
          {
            ...business,
            taxRates: [
              { name: "A", rateBp: 1 },
              { name: "a", rateBp: 2 },
            ],
          },
          office,
        ),
      ),
    ).toBe("There is one of this name already.");
    expect(problem(perform(world.hogar, saveBusiness, { ...business, site: "marrowick" }, office))).toMatch(
      /https:\/\//,
    );
  });
});

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
      problem(perform(world.hogar, saveZone, { id: null, name: "Nowhere", postcodes: [], ...terms }, office)),
    ).toMatch(/^Say where the zone is/);
    expect(
      problem(
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
    expect(dataOf(world).zones.map((z) => [z.name, z.priority, z.postcodes])).toEqual([
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
    expect(dataOf(world).zones).toHaveLength(2);
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

describe("the team", () => {
  it("limits itself to zones, services and hours, and the office places whom customers are not offered", () => {
    const world = smallWorld();
    const [bram, petra] = dataOf(world).technicians as [
      ReturnType<typeof dataOf>["technicians"][number],
      ReturnType<typeof dataOf>["technicians"][number],
    ];
    const save = (t: typeof bram, more: object) =>
      mustPerform(
        world.hogar,
        saveTechnician,
        { id: t.id, name: t.name, phone: t.phone, skills: t.skills, hours: t.hours, ...more },
        office,
      );
    const who = (serviceId?: number) =>
      [
        ...new Set(world.offers(serviceId).flatMap((o) => (o.offered ? o.technicians.map((t) => Number(t.id)) : []))),
      ].sort();
    save(bram, { services: [world.services.survey] });
    expect([who(), who(world.services.survey)]).toEqual([[petra.id], [bram.id, petra.id]]);
    save(petra, { offered: false });
    expect([who(), who(world.services.survey)]).toEqual([[], [bram.id]]);
    save(bram, { services: [], zones: [], mostMinutes: 30 });
    expect(who()).toEqual([]);
  });

  it("that leaves goes out of the plan, keeps its history and cannot sign in; back again, it works as before", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    const placed = () =>
      world.hogar.store
        .sql<{ technician_id: number }>("SELECT technician_id FROM placements WHERE visit_id = ?")
        .all(visitId)
        .map((p) => p.technician_id);
    const [id] = placed() as [number];
    mustPerform(
      world.hogar,
      savePerson,
      {
        id: null,
        name: "Bram Okafor",
        mail: "bram@marrowick.example",
        role: "technician",
        password: "open the door",
        technicianId: id,
        active: true,
      },
      office,
    );
    expect(mustPerform(world.hogar, setTechnicianActive, { id, active: false }, office)).toEqual({ freed: 1 });
    expect([
      placed(),
      one(world.hogar, "SELECT state FROM visits WHERE id = ?", visitId),
      one(world.hogar, "SELECT active FROM people WHERE technician_id = ?", id),
    ]).toEqual([[], { state: "promised" }, { active: 0 }]);
    expect(world.offers().every((o) => o.offered && o.technicians.every((t) => Number(t.id) !== id))).toBe(true);
    mustPerform(world.hogar, setTechnicianActive, { id, active: true }, office);
    expect(world.offers().some((o) => o.offered && o.technicians.some((t) => Number(t.id) === id))).toBe(true);
  });

  it("that leaves while at work finishes what is under way", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    const technician = () =>
      world.hogar.store
        .sql<{ technician_id: number }>("SELECT technician_id FROM placements WHERE visit_id = ?")
        .get(visitId)?.technician_id;
    const id = technician()!;
    world.onTheDayOf(visitId);
    mustPerform(world.hogar, advanceVisit, { visitId, to: "on site" }, office);
    expect([mustPerform(world.hogar, setTechnicianActive, { id, active: false }, office).freed, technician()]).toEqual([
      0,
      id,
    ]);
  });

  it("sees only its own visits where that is said, in every list and by number too", () => {
    const world = smallWorld();
    const first = world.booked({ name: "Mira Okonjo" });
    const second = world.booked({ name: "Jonas Lund", nth: 20 });
    const owner = one<{ technician_id: number }>(
      world.hogar,
      "SELECT technician_id FROM placements WHERE visit_id = ?",
      first.visitId,
    ).technician_id;
    const other = world.technicians.find((t) => t !== owner)!;
    world.hogar.store.db.transaction(() =>
      world.hogar.store.audit.under({ at: 0, actor: "test", operation: "test" }, () => {
        world.hogar.store.sql("DELETE FROM placements WHERE visit_id = ?").run(second.visitId);
        world.hogar.store
          .sql(
            "INSERT INTO placements SELECT id, ?, date, window_from, 0, window_from, window_from + 60, 0 FROM visits WHERE id = ?",
          )
          .run(other, second.visitId);
      }),
    )();
    const limited = personActor({
      id: 1,
      name: "Limited",
      role: "dispatcher",
      technicianId: owner,
      taken: ["visits.all"],
    });
    const seen = look(world.hogar, customers, firstPage<"customers">("name"), limited);
    expect(seen.ok && seen.value.rows.map((r) => r.name)).toEqual(["Mira Okonjo"]);
    expect([
      look(world.hogar, visitSheet, { visitId: first.visitId }, limited).ok,
      look(world.hogar, visitSheet, { visitId: second.visitId }, limited),
    ]).toMatchObject([true, { problem: { code: "not-your-visit" } }]);
    const today = look(world.hogar, todayView, {}, limited);
    expect(today.ok && today.value.technicians.map((t) => t.id)).toEqual([owner]);
  });

  it("hands incoming over to somebody who may book", () => {
    const world = smallWorld();
    const person = (name: string, role: "dispatcher" | "bookkeeper") =>
      mustPerform(
        world.hogar,
        savePerson,
        {
          id: null,
          name,
          mail: `${role}@marrowick.example`,
          role,
          password: "open the door",
          technicianId: null,
          active: true,
        },
        office,
      ).id;
    const [tomas, ines] = [person("Tomas Quill", "dispatcher"), person("Ines Varga", "bookkeeper")];
    const dispatcher = personActor({ id: tomas, name: "Tomas Quill", role: "dispatcher", technicianId: null });
    expect(problem(perform(world.hogar, handIncoming, { personId: tomas }, dispatcher))).toMatch(/role does not allow/);
    mustPerform(world.hogar, handIncoming, { personId: tomas }, office);
    expect(problem(perform(world.hogar, handIncoming, { personId: ines }, dispatcher))).toMatch(/may not book/);
    mustPerform(world.hogar, handIncoming, { personId: null }, dispatcher);
    expect(
      problem(
        perform(
          world.hogar,
          savePerson,
          {
            id: 1,
            name: "Odile Brandt",
            mail: "odile@marrowick.example",
            role: "owner",
            technicianId: null,
            active: true,
            taken: ["people.change"],
          },
          office,
        ),
      ),
    ).toBe("Somebody must remain the owner.");
  });
});

describe("services", () => {
  const base = {
    id: null,
    category: "Sweeping",
    description: "",
    priceMinor: 9000,
    taxBp: 2100,
    minutes: 30,
    beforeMinutes: 0,
    afterMinutes: 0,
    crew: 1,
    skills: ["sweep"],
    deposit: { kind: "none" as const, value: 0 },
    active: true,
  };

  it("get an address of their own, are copied whole, and are hidden from those who do not come by it", () => {
    const world = smallWorld();
    const { id } = mustPerform(
      world.hogar,
      saveService,
      {
        ...base,
        code: "OV",
        name: "Oven clean & polish",
        hidden: true,
        limits: { window: 1, day: null, week: 4 },
        windows: [{ kind: "window", weekdays: 31, from: 540, to: 600 }],
      },
      office,
    );
    const names = (slug?: string) => {
      const result = look(
        world.hogar,
        servicesAt,
        { addressId: world.addresses[10]!.id, ...(slug && { slug }) },
        visitor,
      );
      return result.ok ? result.value.services.map((s) => s.name) : [];
    };
    expect(names()).not.toContain("Oven clean & polish");
    expect(names("oven-clean-polish")).toContain("Oven clean & polish");
    const copied = mustPerform(world.hogar, duplicateService, { id }, office).id;
    const copy = dataOf(world).services.find((s) => s.id === copied);
    expect(copy).toMatchObject({
      name: "Oven clean & polish, copy",
      code: "OA",
      active: false,
      limits: { window: 1, day: null, week: 4 },
      skills: [{ name: "sweep", level: 1 }],
      windows: [{ from: 540 }],
      slug: "oven-clean-polish-copy",
    });
  });

  it("are shown in the order of their categories, which can be renamed", () => {
    const world = smallWorld();
    mustPerform(world.hogar, saveService, { ...base, code: "GA", name: "Gas check", category: "Gas" }, office);
    const { sweep, survey, guard } = world.services;
    const [gas] = dataOf(world).services.filter((s) => s.category === "Gas");
    mustPerform(
      world.hogar,
      orderServices,
      {
        categories: [
          { name: "Gas fires", was: "Gas", services: [gas!.id] },
          { name: "Sweeping", was: "Sweeping", services: [survey, guard, sweep] },
        ],
      },
      office,
    );
    expect(dataOf(world).services.map((s) => [s.category, s.name])).toEqual([
      ["Gas fires", "Gas check"],
      ["Sweeping", "Camera survey"],
      ["Sweeping", "Bird guard fitted"],
      ["Sweeping", "Chimney sweep"],
    ]);
    expect(dataOf(world).categories.map((c) => c.name)).toEqual(["Gas fires", "Sweeping"]);
  });

  it("remember what they cost, and refuse terms that cannot be", () => {
    const world = smallWorld();
    const { id } = mustPerform(world.hogar, saveService, { ...base, code: "OV", name: "Oven clean" }, office);
    mustPerform(world.hogar, saveService, { ...base, id, code: "OV", name: "Oven clean", priceMinor: 9900 }, office);
    const history = look(world.hogar, priceHistory, { serviceId: id }, office);
    expect(history.ok && history.value.map((h) => [h.beforeMinor, h.afterMinor, h.who])).toEqual([
      [9000, 9900, "Odile Brandt"],
      [null, 9000, "Odile Brandt"],
    ]);
    expect(
      problem(
        perform(
          world.hogar,
          saveService,
          { ...base, id, code: "OV", name: "Oven clean", priceKind: "quote", deposit: { kind: "full", value: 0 } },
          office,
        ),
      ),
    ).toMatch(/no deposit yet/);
    expect(
      problem(perform(world.hogar, saveService, { ...base, code: "ON", name: "Other", slug: "oven-clean" }, office)),
    ).toMatch(/one of this already/);
  });
});

describe("requests from outside the zones", () => {
  const who = {
    address: "",
    name: "Ottilie Fenn",
    mail: "ottilie@example.com",
    phone: "+1 555 0177",
    wishes: "Two flues",
  };
  it("are taken where the owner wants them, wait on the first screen, and are answered once", () => {
    const world = smallWorld();
    const beyond = world.town.addresses.find((a) => a.postcode.startsWith("MW 5"))!;
    expect(problem(perform(world.hogar, makeRequest, { addressId: beyond.id, ...who }, visitor))).toBe(
      "This address is not in our zones yet.",
    );
    const { rules } = dataOf(world);
    mustPerform(world.hogar, saveBookingRules, { ...rules, outside: "request" }, office);
    const { id } = mustPerform(world.hogar, makeRequest, { addressId: beyond.id, ...who }, visitor);
    expect(problem(perform(world.hogar, makeRequest, { addressId: world.addresses[10]!.id, ...who }, visitor))).toMatch(
      /We do come there/,
    );
    const waiting = () => {
      const view = look(world.hogar, incoming, firstPage<"incoming">("at"), office);
      return view.ok ? view.value.rows.map((e) => e.name) : null;
    };
    expect(waiting()).toEqual(["Ottilie Fenn"]);
    mustPerform(world.hogar, answerRequests, { ids: [id] }, office);
    expect(waiting()).toEqual([]);
    expect(perform(world.hogar, answerRequests, { ids: [id] }, office)).toMatchObject({ ok: false });
  });

  it("come from inside too, where no window suits or times are agreed in person", () => {
    const world = smallWorld();
    const ask = (wishes: string) =>
      perform(
        world.hogar,
        makeRequest,
        { ...who, addressId: world.addresses[10]!.id, items: [{ serviceId: world.services.sweep }], wishes },
        visitor,
      );
    expect(problem(ask(" "))).toBe("Say which days and times would suit you.");
    expect(ask("Saturdays only").ok).toBe(true);
    mustPerform(world.hogar, saveBookingRules, { ...dataOf(world).rules, capacity: "ask" }, office);
    expect(ask("Any morning").ok).toBe(true);
    expect(
      world.hogar.store
        .sql("SELECT about, json_extract(items, '$[0].serviceId') AS service FROM requests ORDER BY id")
        .all(),
    ).toEqual([
      { about: "no window suits", service: world.services.sweep },
      { about: "a time to be agreed", service: world.services.sweep },
    ]);
  });
});

describe("a rehearsal", () => {
  const rows = (world: ReturnType<typeof smallWorld>) =>
    ["pattern_parts", "business", "limits", "audit", "audit_changes", "plan_changes"].map((table) =>
      JSON.stringify(world.hogar.store.sql(`SELECT * FROM ${table}`).all()),
    );

  it("answers what would be, and leaves nothing of it", () => {
    const world = smallWorld();
    const { rules } = dataOf(world);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 5000 }), fc.integer({ min: 6, max: 15 }), (noticeMinutes, hour) => {
        const before = rows(world);
        const offered = world.offers().length;
        const typed = {
          ...rules,
          noticeMinutes,
          windows: [{ kind: "window" as const, weekdays: 127, from: hour * 60, to: hour * 60 + 120 }],
        };
        const preview = look(
          world.hogar,
          previewWindows,
          { rules: typed, addressId: world.addresses[10]!.id, serviceId: world.services.sweep },
          office,
        );
        expect(preview.ok && preview.value.days).toHaveLength(14);
        expect(preview.ok && preview.value.days.every((d) => d.windows.every((w) => w.from === hour * 60))).toBe(true);
        expect(rows(world)).toEqual(before);
        expect(world.offers()).toHaveLength(offered);
      }),
      { numRuns: 12 },
    );
  });

  it("shows what saving then gives, and comes out as the operation would where it is refused", () => {
    const world = smallWorld();
    const { rules } = dataOf(world);
    const typed = { ...rules, noticeMinutes: 26 * 60 };
    const ask = () =>
      look(
        world.hogar,
        previewWindows,
        { rules: typed, addressId: world.addresses[10]!.id, serviceId: world.services.sweep },
        office,
      );
    const before = ask();
    mustPerform(world.hogar, saveBookingRules, typed, office);
    expect(ask()).toEqual(before);
    const odd = {
      rules: { ...rules, windows: [{ kind: "window" as const, weekdays: 1, from: 600, to: 540 }] },
      addressId: world.addresses[10]!.id,
      serviceId: world.services.sweep,
    };
    expect(look(world.hogar, previewWindows, odd, office)).toMatchObject({
      problem: { fields: { "/windows/0": "A window ends after it begins." } },
    });
    expect(
      look(
        world.hogar,
        previewWindows,
        { rules: typed, addressId: world.addresses[10]!.id, serviceId: world.services.sweep },
        visitor,
      ),
    ).toMatchObject({ problem: { code: "not-signed-in" } });
    expect(
      rehearse(
        viewContext(world.hogar, system),
        (context) => changeBookingRules(context, { ...rules, horizonDays: 77 }),
        (context) => context.business.horizon_days,
      ),
    ).toBe(77);
    expect(dataOf(world).rules.horizonDays).toBe(30);
  });
});
