import type { Answers, Question } from "@/core/catalogue/questions";
import type { Random } from "./random";

/** The made-up business of the demo: what Odile Brandt would have typed into set-up. */
export const demoPassword = "open the door";

export const business = {
  name: "Marrowick Hearth & Flue",
  phone: "+1 555 0100",
  mail: "office@marrowick.example",
  currency: "EUR",
  pricesIncludeTax: true,
  timeZone: "Europe/Lisbon",
};

/** What else stands in the set-up of the business. */
export const details = {
  site: "https://marrowick.example",
  registration: "Marrowick 0417",
  taxNumber: "MW 5550 100",
  taxRates: [
    { name: "Standard", rateBp: 2100 },
    { name: "Sweeping", rateBp: 1300 },
  ],
  terms:
    "We come within the window we promise and tell you if anything changes. Parts stay ours until they are paid. Something is not right? Tell us within 14 days and we come back.",
  quoteText: "This quote holds for 30 days.",
  invoiceText: "Thank you. Please pay within the time stated above.",
  paymentDays: 14,
  billing: {
    invoicePrefix: "MW-",
    creditPrefix: "MWC-",
    bankAccount: "XX41 7700 0000 0417",
    exemptWords: "Exempt from tax.",
    paymentFrom: "invoice" as const,
    by: "job" as const,
    lateFeeDays: 30,
    lateFeeMinor: 500,
    lateFeeBp: 100,
    tips: true,
    quoteFollowUps: [4, 12],
    textBlocks: [
      {
        paper: "statement" as const,
        place: "after" as const,
        serviceId: null,
        words: "Something does not agree? Call us, and we look at it together.",
      },
    ],
  },
  travelMarginMinutes: 2,
  travelMarginPercent: 10,
};

export const people = [
  { name: "Odile Brandt", mail: "odile@marrowick.example", role: "owner" },
  { name: "Tomas Quill", mail: "tomas@marrowick.example", role: "dispatcher" },
  { name: "Ines Varga", mail: "ines@marrowick.example", role: "bookkeeper" },
  { name: "Bram Okafor", mail: "bram@marrowick.example", role: "technician" },
  { name: "Petra Lindqvist", mail: "petra@marrowick.example", role: "technician" },
  { name: "Yusuf Demir", mail: "yusuf@marrowick.example", role: "technician" },
  { name: "Hanna Sorel", mail: "hanna@marrowick.example", role: "technician" },
  { name: "Kofi Mensah", mail: "kofi@marrowick.example", role: "technician" },
  { name: "Luca Arden", mail: "luca@marrowick.example", role: "technician" },
] as const;

const everyDay = 127;

const [tue, wed, thu] = [2, 4, 8];

export const zones = [
  { name: "Harbourside", postcodes: ["MW 1*"], weekdays: everyDay },
  { name: "Old Town", postcodes: ["MW 201-206"], weekdays: everyDay, serveTo: 13 * 60 },
  { name: "Northfield", postcodes: ["MW 3*"], weekdays: everyDay },
  { name: "Moor Edge", postcodes: ["MW 401-407"], weekdays: tue + thu, surchargeMinor: 1800, noticeMinutes: 2 * 1440 },
  { name: "Gull Island", postcodes: ["MW 501", "MW 502", "MW 503"], weekdays: wed, smallestOrderMinor: 12_000 },
];

/** Addresses of this postcode lie outside all zones. */
export const outsidePostcode = "MW 408";

type Hours = [weekdays: number[], spans: [number, number][]];

const hours = (...parts: Hours[]) =>
  parts.flatMap(([weekdays, spans]) =>
    weekdays.flatMap((weekday) =>
      spans.map(([opens, closes]) => ({ weekday, opens: opens * 60, closes: closes * 60 })),
    ),
  );

const monToFri = [0, 1, 2, 3, 4];

/** `untilDays`: days from the start of the demo on which a certificate expires. */
export const technicians: {
  name: string;
  phone: string;
  skills: { name: string; level?: number; untilDays?: number }[];
  hours: ReturnType<typeof hours>;
  home: string;
}[] = [
  {
    name: "Bram Okafor",
    phone: "+1 555 0111",
    skills: [{ name: "sweep", level: 3 }, { name: "solid fuel" }, { name: "roof access", level: 2 }],
    hours: hours([
      monToFri,
      [
        [8, 12],
        [12.5, 16.5],
      ],
    ]),
    home: "MW 304",
  },
  {
    name: "Petra Lindqvist",
    phone: "+1 555 0112",
    skills: [
      { name: "solid fuel", level: 2 },
      { name: "gas", level: 2, untilDays: 24 },
      { name: "camera survey", level: 3 },
    ],
    hours: hours([
      monToFri,
      [
        [8, 13],
        [13.5, 17],
      ],
    ]),
    home: "MW 105",
  },
  {
    name: "Yusuf Demir",
    phone: "+1 555 0113",
    skills: [{ name: "sweep" }, { name: "gas", untilDays: 400 }],
    hours: hours([
      monToFri,
      [
        [9.5, 12.5],
        [13, 18],
      ],
    ]),
    home: "MW 309",
  },
  {
    name: "Hanna Sorel",
    phone: "+1 555 0114",
    skills: [{ name: "sweep" }, { name: "solid fuel" }, { name: "camera survey" }],
    hours: hours(
      [
        [0, 1, 3, 4],
        [
          [8, 12],
          [13, 17],
        ],
      ],
      [[5], [[9, 13]]],
    ),
    home: "MW 108",
  },
  {
    name: "Kofi Mensah",
    phone: "+1 555 0115",
    skills: [{ name: "sweep", level: 2 }, { name: "confined space" }, { name: "roof access", level: 2 }],
    hours: hours([
      monToFri,
      [
        [7, 11.5],
        [12, 15.5],
      ],
    ]),
    home: "MW 302",
  },
  {
    name: "Luca Arden",
    phone: "+1 555 0116",
    skills: [{ name: "roof access" }],
    hours: hours([
      monToFri,
      [
        [8, 12],
        [12.5, 16.5],
      ],
    ]),
    home: "MW 102",
  },
];

type Deposit = { kind: "none" | "percent" | "fixed" | "full"; value: number };

const none: Deposit = { kind: "none", value: 0 };

export const services: {
  code: string;
  name: string;
  category: string;
  description: string;
  priceMinor: number;
  taxBp: number;
  minutes: number;
  afterMinutes?: number;
  crew?: number;
  days?: number;
  noticeMinutes?: number;
  wish?: "none" | "preferred" | "only";
  workPlace?: "ours" | "afar";
  seats?: number;
  /** Weekdays, as a mask, and the minute of the day at which it begins. */
  begins?: { weekdays: number; at: number };
  skills: string[];
  deposit: Deposit;
  popular: number;
}[] = [
  {
    code: "SW",
    name: "Chimney sweep",
    category: "Sweeping",
    description: "One flue swept from below, with a smoke test and a certificate for your insurer.",
    priceMinor: 7900,
    taxBp: 1300,
    minutes: 45,
    afterMinutes: 5,
    skills: ["sweep"],
    deposit: none,
    popular: 10,
  },
  {
    code: "ST",
    name: "Stove service",
    category: "Stoves",
    description: "Seals, bricks and baffle checked, glass cleaned, flue swept.",
    priceMinor: 11_900,
    taxBp: 2100,
    minutes: 75,
    afterMinutes: 5,
    skills: ["solid fuel"],
    deposit: { kind: "fixed", value: 3000 },
    popular: 6,
  },
  {
    code: "GC",
    name: "Stove glass cut",
    category: "Stoves",
    description: "Bring the old glass or its measures: we cut and fit a new one while you wait.",
    priceMinor: 3500,
    taxBp: 2100,
    minutes: 30,
    workPlace: "ours",
    skills: ["solid fuel"],
    deposit: none,
    popular: 0,
  },
  {
    code: "AC",
    name: "Advice call about a new stove",
    category: "Stoves",
    description: "We call you: which stove, which flue, and what it would cost.",
    priceMinor: 2500,
    taxBp: 2100,
    minutes: 20,
    workPlace: "afar",
    skills: ["solid fuel"],
    deposit: none,
    popular: 0,
  },
  {
    code: "LL",
    name: "Lighting lesson",
    category: "Stoves",
    description: "Ninety minutes at our stoves: laying, lighting and burning clean, with soup.",
    priceMinor: 1800,
    taxBp: 2100,
    minutes: 90,
    workPlace: "ours",
    seats: 8,
    begins: { weekdays: 0b0001000, at: 14 * 60 + 30 },
    skills: ["solid fuel"],
    deposit: none,
    popular: 0,
  },
  {
    code: "GA",
    name: "Gas fire check",
    category: "Gas",
    description: "Safety check of one gas fire, with a certificate.",
    priceMinor: 9500,
    taxBp: 2100,
    minutes: 45,
    skills: ["gas"],
    deposit: none,
    popular: 5,
  },
  {
    code: "CS",
    name: "Camera survey",
    category: "Surveys",
    description: "The flue filmed from end to end, with a written report within two days.",
    priceMinor: 16_000,
    taxBp: 2100,
    minutes: 90,
    afterMinutes: 10,
    skills: ["camera survey"],
    deposit: { kind: "percent", value: 2500 },
    popular: 3,
  },
  {
    code: "BG",
    name: "Bird guard fitted",
    category: "Roof work",
    description: "A guard over one pot, fitted by two people.",
    priceMinor: 14_500,
    taxBp: 2100,
    minutes: 60,
    skills: ["roof access"],
    crew: 2,
    deposit: { kind: "fixed", value: 4000 },
    popular: 2,
  },
  {
    code: "CW",
    name: "Cowl replacement",
    category: "Roof work",
    description: "The old cowl off, a new one on, fitted by two people.",
    priceMinor: 17_500,
    taxBp: 2100,
    minutes: 75,
    skills: ["roof access"],
    crew: 2,
    deposit: { kind: "fixed", value: 4000 },
    popular: 1,
  },
  {
    code: "FR",
    name: "Flue relining",
    category: "Roof work",
    description: "A new liner from the pot to the stove: two days, two people.",
    priceMinor: 185_000,
    taxBp: 2100,
    minutes: 200,
    afterMinutes: 15,
    crew: 2,
    days: 2,
    noticeMinutes: 5 * 1440,
    skills: ["roof access"],
    deposit: { kind: "percent", value: 3000 },
    popular: 0,
  },
  {
    code: "SD",
    name: "Smoke draught test",
    category: "Surveys",
    description: "Is the draught right? Measured with the room as you use it.",
    priceMinor: 6500,
    taxBp: 2100,
    minutes: 40,
    skills: ["solid fuel"],
    deposit: none,
    popular: 2,
  },
  {
    code: "LC",
    name: "Landlord’s yearly certificate",
    category: "Gas",
    description: "All gas fires of one address checked and certified.",
    priceMinor: 11_000,
    taxBp: 2100,
    minutes: 60,
    skills: ["gas"],
    deposit: none,
    popular: 2,
  },
  {
    code: "PO",
    name: "Pizza-oven flue clean",
    category: "Sweeping",
    description: "Grease and soot out of the oven’s flue, before you open.",
    priceMinor: 8500,
    taxBp: 1300,
    minutes: 60,
    skills: ["sweep"],
    deposit: none,
    popular: 1,
  },
  {
    code: "RV",
    name: "Relining visit",
    category: "Surveys",
    description: "We measure the flue and leave you a quote for relining it.",
    priceMinor: 4500,
    taxBp: 2100,
    minutes: 60,
    skills: ["camera survey"],
    deposit: none,
    popular: 1,
  },
];

/** Parts and products; `code`s of the services they can be added to. */
export const extras = [
  { name: "Bird guard, small", unit: "piece", priceMinor: 3900, costMinor: 1450, taxBp: 2100, on: ["BG", "SW"] },
  { name: "Bird guard, large", unit: "piece", priceMinor: 5900, costMinor: 2300, taxBp: 2100, on: ["BG"] },
  { name: "Cowl", unit: "piece", priceMinor: 8900, costMinor: 3800, taxBp: 2100, on: ["CW"] },
  { name: "Rope seal", unit: "metre", priceMinor: 650, costMinor: 210, taxBp: 2100, on: ["ST"] },
  { name: "Fire brick", unit: "piece", priceMinor: 1450, costMinor: 520, taxBp: 2100, on: ["ST"] },
  {
    name: "Carbon monoxide alarm",
    unit: "piece",
    priceMinor: 3400,
    costMinor: 1500,
    taxBp: 2100,
    on: ["SW", "ST", "GA"],
  },
];

/** Questions by service; skills by name. */
export const questions: Record<string, Question[]> = {
  SW: [
    {
      id: "flues",
      words: "How many flues?",
      billed: "Further flue",
      required: true,
      kind: "count",
      min: 1,
      max: 8,
      included: 1,
      each: { price: { how: "add", minor: 4500 }, minutes: 30 },
    },
    {
      id: "last",
      words: "When was it last swept?",
      required: false,
      kind: "one",
      choices: [
        { id: "year", words: "within a year" },
        { id: "years", words: "longer ago", effect: { minutes: 10 } },
        { id: "unknown", words: "not known", effect: { minutes: 10 } },
      ],
    },
    {
      id: "nest",
      words: "Could there be a nest?",
      billed: "Nest taken out",
      required: true,
      kind: "yes-no",
      yes: { price: { how: "add", minor: 3000 }, minutes: 20 },
    },
    {
      id: "where",
      words: "What have you seen of it?",
      required: false,
      kind: "text",
      most: 300,
      shownIf: { question: "nest", is: true },
    },
  ],
  ST: [{ id: "glass", words: "Is the glass cracked?", required: false, kind: "yes-no" }],
  BG: [
    {
      id: "pot",
      words: "A photo of the chimney pot",
      help: "From the street is enough.",
      required: false,
      kind: "photo",
      most: 3,
    },
  ],
  GA: [
    {
      id: "fires",
      words: "How many gas fires?",
      billed: "Further gas fire",
      required: true,
      kind: "count",
      min: 1,
      max: 6,
      included: 1,
      each: { price: { how: "add", minor: 6000 }, minutes: 30 },
    },
  ],
};

/** Answers as somebody in the demo would give them. */
export function someAnswers(code: string, random: Random): Answers {
  if (code === "SW") return { flues: random.chance(0.85) ? 1 : 2, nest: random.chance(0.06) };
  return code === "GA" ? { fires: 1 } : {};
}

/** What is ticked off on site, by service. */
const item = (id: string, words: string, required = false) => ({ id, words, required });

export const checklists: Record<string, { id: string; words: string; required: boolean }[]> = {
  SW: [
    item("sheets", "Sheets down"),
    item("swept", "Swept from end to end"),
    item("smoke", "Smoke test passed", true),
    item("shown", "Customer shown what was found"),
  ],
  ST: [item("seals", "Seals and bricks checked"), item("smoke", "Smoke test passed", true)],
  GA: [item("pressure", "Working pressure measured"), item("spill", "No spillage", true)],
};

/** How a service is shown and on what terms, where that differs. */
export const terms: Record<
  string,
  {
    repeats?: { every: number; unit: "week" | "month" | "year" }[];
    comes?: "flexible" | "ask";
    againMonths?: number;
    wish?: "preferred" | "only";
    priceKind?: "fixed" | "from" | "quote";
    mayPayAll?: boolean;
    hidden?: boolean;
    confirm?: boolean;
    late?: { hours: number; kind: "percent" | "fixed"; value: number };
    noAccessMinor?: number;
  }
> = {
  ST: { wish: "preferred", repeats: [{ every: 1, unit: "year" }] },
  GA: { repeats: [{ every: 1, unit: "year" }], comes: "ask" },
  CS: { againMonths: 24 },
  LC: { repeats: [{ every: 1, unit: "year" }] },
  SW: {
    repeats: [
      { every: 6, unit: "month" },
      { every: 1, unit: "year" },
    ],
    mayPayAll: true,
    late: { hours: 24, kind: "fixed", value: 2500 },
    noAccessMinor: 3500,
  },
  BG: { late: { hours: 48, kind: "percent", value: 3000 } },
  FR: { priceKind: "from", late: { hours: 168, kind: "percent", value: 1000 } },
  PO: { hidden: true },
  CW: { confirm: true },
};

/** What the front door says and asks. */
export const frontDoor = {
  welcome: "Clean flues, safe fires. Tell us where you live, and see at once when we can come.",
  picture: null,
  accent: "",
  ground: "",
  answers: [
    {
      question: "Do I have to clear the hearth?",
      answer: "Let the fire go out the evening before. We bring sheets and leave the room as we found it.",
    },
    {
      question: "Do I get a certificate?",
      answer: "Yes, after every sweep and every gas check. Your insurer takes it.",
    },
  ],
  fields: [
    { id: "parking", words: "Where can we park?", required: false, kind: "text" as const, most: 120 },
    {
      id: "tenant",
      words: "Are you the owner or a tenant?",
      required: false,
      kind: "one" as const,
      choices: [
        { id: "owner", words: "owner" },
        { id: "tenant", words: "tenant" },
      ],
    },
  ],
  paysAtDoor: true,
  doneWords: "Thank you. We are looking forward to your fireside.",
  doneAddress: "",
  showsContact: true,
  takesWishes: true,
  sites: ["https://marrowick.example"],
  tells: [
    { way: "mail" as const, to: "tomas@marrowick.example" },
    { way: "text" as const, to: "+1 555 0100" },
  ],
};

/** Headings of directories under which the categories stand. */
export const kinds = [
  { category: "Sweeping", kind: "HVACBusiness" as const },
  { category: "Stoves", kind: "HVACBusiness" as const },
  { category: "Gas", kind: "HVACBusiness" as const },
  { category: "Surveys", kind: null },
  { category: "Roof work", kind: "RoofingContractor" as const },
];

/** Order of the categories at the front door. */
export const categories = ["Sweeping", "Stoves", "Gas", "Surveys", "Roof work"];

/** What the team is paid: an hour or a month in minor units, and what the employer adds. */
export const pay: Record<
  string,
  { kind: "hourly" | "salary"; amountMinor: number; hours: number; employerBp: number }
> = {
  "Bram Okafor": { kind: "salary", amountMinor: 312_000, hours: 160, employerBp: 2375 },
  "Petra Lindqvist": { kind: "salary", amountMinor: 324_000, hours: 160, employerBp: 2375 },
  "Yusuf Demir": { kind: "hourly", amountMinor: 1850, hours: 160, employerBp: 2375 },
  "Hanna Sorel": { kind: "hourly", amountMinor: 1900, hours: 128, employerBp: 2375 },
  "Kofi Mensah": { kind: "hourly", amountMinor: 1800, hours: 160, employerBp: 2375 },
  "Luca Arden": { kind: "hourly", amountMinor: 1150, hours: 160, employerBp: 2375 },
};

export const subcontractor = {
  name: "Tern & Slate",
  phone: "+1 555 0160",
  mail: "jobs@ternandslate.example",
  skills: [{ name: "roof access", level: 3 }],
  hours: hours([monToFri, [[8, 16]]]),
};

export const openingHours = hours([monToFri, [[7, 18.5]]], [[5], [[8, 14]]]);

export const windows = [
  { kind: "window" as const, weekdays: 31, from: 7 * 60, to: 9 * 60 },
  ...[9, 11, 13, 15].map((from) => ({
    kind: "window" as const,
    weekdays: from < 13 ? 63 : 31,
    from: from * 60,
    to: (from + 2) * 60,
  })),
];

export const coupon = { code: "SPRING10", kind: "percent" as const, value: 1000, most: 50, active: true };

/** Where customers come from, and by which links they come. */
export const sources = ["Harbour fair", "Van doors", "Parish paper"];

export const cameBy = [null, null, null, "van-doors", "van-doors", "parish-paper", "harbour-fair", "quay-cafe"];
