import { input, OrNull } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { readZones } from "@/modules/place/zones-part";
import { readTeam } from "@/modules/team/team-part";
import { Type } from "@sinclair/typebox";
import { readBusinessPart } from "../business-part";
import { readServices } from "../services-part";

/** The set-up, as its forms and its check need it. With `part` only what that part of the screen shows, and of long lists only the entry `id` whole. */
export const setup = defineView({
  name: "setup",
  access: "setup.change",
  input: input({
    part: Type.Optional(Type.String({ maxLength: 40 })),
    id: Type.Optional(OrNull(Type.String({ maxLength: 40 }))),
  }),
  read(context, { part, id = null }) {
    const whole = readWhole(context);
    return part === undefined ? whole : whatIsShown(whole, part, id);
  },
});

export type SetupData = ReturnType<typeof readWhole>;

const readWhole = (context: ViewContext) => ({
  ...readBusinessPart(context),
  ...readServices(context),
  ...readTeam(context),
  ...readZones(context),
});

/** One and the same for all of them, so that it is sent once. */
const notOpen = {
  description: "",
  questions: [],
  checklist: [],
  skills: [],
  extras: [],
  technicians: [],
  hours: [],
  windows: null,
  limits: { window: null, day: null, week: null },
  late: { hours: 0, kind: "none" as const, value: 0 },
  deposit: { kind: "none" as const, value: 0 },
};

const partsWithServices = [
  "business",
  "services",
  "prices",
  "windows",
  "technicians",
  "sharing",
  "coupons",
  "job-patterns",
];

function whatIsShown(data: SetupData, part: string, id: string | null): SetupData {
  const services = partsWithServices.includes(part) ? data.services : [];
  // A pattern is made of any of them, with what they ask.
  const isWhole = (service: string) => (part === "services" ? service === id : part === "job-patterns" && id !== null);
  const withoutShape = () => data.zones.map((zone) => ({ ...zone, area: null, postcodes: [], towns: [] }));
  return {
    ...data,
    services: services.map((s) => (isWhole(String(s.id)) ? s : { ...s, ...notOpen })),
    zones: part === "zones" ? data.zones : part === "technicians" ? withoutShape() : [],
  };
}
