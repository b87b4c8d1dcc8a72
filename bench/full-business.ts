import { personActor } from "@/core/people/permissions";
import { bestInsertion, prepareDay } from "@/core/routes/insertion";
import { type Stop, timeDay } from "@/core/routes/timing";
import { addDays } from "@/core/time/dates";
import { epochMinute, localDate } from "@/core/time/local";
import { type Hogar } from "@/kernel/hogar";
import { mustPerform, viewContext } from "@/kernel/operation";
import { openBusiness } from "@/modules/business/open-business";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { saveZone } from "@/modules/place/operations/save-zone";
import { saveBookingRules } from "@/modules/placing/operations/booking-rules";
import { placesOf } from "@/modules/placing/stored-days";
import { saveTechnician } from "@/modules/team/operations/save-technician";
import { openHogar } from "@/registry/open-hogar";
import { seeded } from "@demo/random";
import { makeTown } from "@demo/town";
import { spawn } from "node:child_process";
import { writeFileSync } from "node:fs";
import { createServer } from "node:net";
import path from "node:path";

const owner = personActor({ id: 1, name: "Odile Brandt", role: "owner", technicianId: null });
const zone = "Europe/Lisbon";

export interface BusinessSize {
  technicians: number;
  days: number;
  stopsADay: number;
}

/** A business whose technicians have so many stops on each day, written straight into the database. */
export function makeBusiness(folder: string, { technicians, days, stopsADay }: BusinessSize): Hogar {
  const town = makeTown(7);
  writeFileSync(path.join(folder, "town.json"), JSON.stringify(town));
  const hogar = openHogar({ folder, town, env: {} });
  const home = town.addresses[0]!;
  openBusiness(
    hogar,
    {
      name: "Marrowick Hearth & Flue",
      phone: "+1 555 0100",
      mail: "office@marrowick.example",
      currency: "EUR",
      pricesIncludeTax: true,
      timeZone: zone,
      place: { lng: home.lng, lat: home.lat },
      demo: false,
    },
    { name: "Odile Brandt", mail: "odile@marrowick.example", password: "open the door" },
  );
  mustPerform(
    hogar,
    saveZone,
    {
      id: null,
      name: "Town",
      postcodes: ["MW 1*", "MW 2*", "MW 3*"],
      weekdays: 127,
      serveFrom: 0,
      serveTo: 1440,
      noticeMinutes: 0,
      surchargeMinor: 0,
      smallestOrderMinor: 0,
    },
    owner,
  );
  const addresses = town.addresses.filter((a) => /^MW [13]/.test(a.postcode));
  const random = seeded(3);
  const hours = [0, 1, 2, 3, 4, 5, 6].flatMap((weekday) => [
    { weekday, opens: 420, closes: 720 },
    { weekday, opens: 750, closes: 1110 },
  ]);
  const ids = Array.from(
    { length: technicians },
    (_, i) =>
      mustPerform(
        hogar,
        saveTechnician,
        {
          id: null,
          name: `Technician ${i}`,
          phone: "+1 555 0111",
          skills: [{ name: "sweep", level: 1, validUntil: null }],
          hours,
          start: pointOf(random.pick(addresses)),
        },
        owner,
      ).id,
  );
  mustPerform(
    hogar,
    saveService,
    {
      id: null,
      code: "SW",
      name: "Chimney sweep",
      category: "Sweeping",
      description: "",
      priceMinor: 7900,
      taxBp: 2100,
      minutes: 30,
      beforeMinutes: 0,
      afterMinutes: 5,
      crew: 1,
      skills: ["sweep"],
      deposit: { kind: "none", value: 0 },
      active: true,
    },
    owner,
  );
  mustPerform(
    hogar,
    saveBookingRules,
    {
      windows: [7, 9, 11, 13, 15].map((from) => ({
        kind: "window" as const,
        weekdays: 127,
        from: from * 60,
        to: (from + 2) * 60,
      })),
      noticeMinutes: 60,
      horizonDays: days - 1,
      holdMinutes: 10,
    },
    owner,
  );

  const context = viewContext(hogar, owner);
  const { place, travel } = placesOf(context);
  const today = localDate(context.minute, zone);
  const { store } = hogar;
  const customer = 1;
  store.db.transaction(() =>
    store.audit.under({ at: context.now, actor: "bench", operation: "bench" }, () => {
      store
        .sql(
          "INSERT INTO customers (id, name, mail, phone, reminders, since_at) VALUES (1, 'Mira Okonjo', 'mira@example.com', '+1 555 0142', 1, 0)",
        )
        .run();
      store
        .sql(
          "INSERT INTO sites (id, customer_id, line, postcode, lng, lat, zone_id, access) VALUES (1, 1, 'x', 'MW 101', ?, ?, 1, '')",
        )
        .run(home.lng, home.lat);
      store
        .sql(
          "INSERT INTO jobs (id, customer_id, site_id, service_id, state, total_minor, tax_minor, deposit_minor, note, booked_at, booked_by) VALUES (1, ?, 1, 1, 'agreed', 7900, 1371, 0, '', 0, 'bench')",
        )
        .run(customer);
      for (const technicianId of ids) {
        const start = store
          .sql<{ start_lng: number; start_lat: number }>("SELECT start_lng, start_lat FROM technicians WHERE id = ?")
          .get(technicianId)!;
        for (let d = 1; d <= days; d++) {
          const date = addDays(today, d);
          const at = (minute: number) => epochMinute(date, minute, zone);
          const base = {
            start: place({ lng: start.start_lng, lat: start.start_lat }, null),
            end: place({ lng: start.start_lng, lat: start.start_lat }, null),
            spans: [
              [at(420), at(720)],
              [at(750), at(1110)],
            ] as const,
          };
          const stops: (Stop & { address: (typeof addresses)[number] })[] = [];
          for (let tries = 0; stops.length < stopsADay && tries < 60; tries++) {
            const address = random.pick(addresses);
            const from = at(420 + 120 * random.int(0, 4));
            const stop = {
              address,
              place: place(pointOf(address), 1),
              earliest: from,
              latest: from + 120,
              before: 0,
              minutes: 20,
              after: 0,
            };
            const day = prepareDay({ ...base, stops }, travel)!;
            const best = bestInsertion(day, stop, travel);
            if (best) stops.splice(best.position, 0, stop);
          }
          const timing = timeDay({ ...base, stops }, travel);
          if (!timing.ok) throw new Error("The bench's days are feasible");
          for (const [i, stop] of stops.entries()) {
            const { id } = store
              .sql<{ id: number }>(
                "INSERT INTO visits (state, job_id, service_id, zone_id, date, window_from, window_to, minutes, before_minutes, after_minutes, crew, lng, lat) VALUES ('promised', 1, 1, 1, ?, ?, ?, 20, 0, 0, 1, ?, ?) RETURNING id",
              )
              .get(date, stop.earliest, stop.latest, stop.address.lng, stop.address.lat)!;
            const { driveFrom, driving, arrive, leave } = timing.stops[i]!;
            store
              .sql("INSERT INTO placements VALUES (?, ?, ?, ?, ?, ?, ?, 0)")
              .run(id, technicianId, date, driveFrom, driving, arrive, leave);
          }
        }
      }
    }),
  )();
  return hogar;
}

const pointOf = ({ lng, lat }: { lng: number; lat: number }) => ({ lng, lat });

/** The built application on a data folder. */
export async function serve(folder: string): Promise<{ url: string; stop: () => Promise<void> }> {
  const port = await new Promise<number>((resolve) => {
    const probe = createServer().listen(0, () => {
      const { port: free } = probe.address() as { port: number };
      probe.close(() => resolve(free));
    });
  });
  const server = spawn(process.execPath, ["bin/hogar.mjs", "serve"], {
    stdio: ["ignore", "pipe", "inherit"],
    env: {
      ...process.env,
      NODE_ENV: "production",
      HOGAR_DATA: folder,
      HOGAR_FRONT_DOOR_PER_MINUTE: "100000",
      // Many customers come from many addresses, as behind a proxy of ours.
      HOGAR_TRUSTED_PROXIES: "1",
      PORT: String(port),
    },
  });
  await new Promise<void>((resolve, reject) => {
    server.stdout.on("data", (text: Buffer) => String(text).includes("Ready on") && resolve());
    server.once("exit", () =>
      reject(new Error("The application ended. Is it built? Run npm test or npm run demo once.")),
    );
  });
  return {
    url: `http://localhost:${port}`,
    stop: () =>
      new Promise((resolve) => {
        server.once("exit", () => resolve());
        server.kill("SIGTERM");
      }),
  };
}
