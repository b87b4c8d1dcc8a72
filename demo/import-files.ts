import type { Town } from "@/gateways/town";
import Papa from "papaparse";
import { firstNames, lastNames } from "./names";
import { seeded } from "./random";

/** Somebody we know already, who stands in the file as well. */
interface Known {
  name: string;
  mail: string;
  phone: string;
}

/**
 * Files to try the import with, with the mistakes that real files have: two columns for a name, phones in three notations,
 * semicolons and a byte order mark in one, Latin-1 and dates with the month first in the other, doubles, and cells that make
 * no sense. The same on every machine.
 */
export function importFiles(town: Town, known: readonly Known[]): { name: string; about: string; bytes: Uint8Array }[] {
  return [
    {
      name: "customers-200.csv",
      about: "200 customers: semicolons, two columns for the name, phones in three notations, some errors and doubles",
      bytes: new TextEncoder().encode(`\uFEFF${customerFile(town, known, 200)}`),
    },
    {
      name: "old-list-latin1.csv",
      about: "24 customers in Latin-1, with the month first in dates and the address in one column",
      bytes: Uint8Array.from([...oldList(town)].map((letter) => letter.charCodeAt(0) & 0xff)),
    },
    { name: "contacts.vcf", about: "12 contacts of a phone", bytes: new TextEncoder().encode(contacts(town)) },
    {
      name: "price-list.csv",
      about: "Next year’s prices, with one service that nobody has",
      bytes: new TextEncoder().encode(priceList),
    },
    {
      name: "repeats.csv",
      about: "Repeats of nine customers, in words and as calendar rules, with two rows that say too little",
      bytes: new TextEncoder().encode(repeatFile(known)),
    },
  ];
}

const phones = (i: number): string => {
  const [area, last] = [301 + Math.floor(i / 90), `01${String(i % 90).padStart(2, "0")}`];
  return [`+1 ${area} 555 ${last}`, `(${area}) 555-${last}`, `001${area}555${last}`][i % 3]!;
};

function people(town: Town, count: number, seed: number) {
  const random = seeded(seed);
  const addresses = random.shuffle(town.addresses.filter((a) => !a.line.endsWith("Gull Island")));
  return Array.from({ length: count }, (_, i) => {
    const [first, last] = [random.pick(firstNames), random.pick(lastNames)];
    const { line, postcode } = addresses[i % addresses.length]!;
    const [street, place = ""] = line.split(", ") as [string, string?];
    return { i, first, last, mail: `${first}.${last}.${i}@example.org`.toLowerCase(), street, town: place, postcode };
  });
}

function customerFile(town: Town, known: readonly Known[], count: number): string {
  const rows = people(town, count, 41).map((p) => ({
    "First name": p.first,
    Surname: p.last,
    "E-Mail": p.mail,
    Mobile: phones(p.i),
    Street: p.street,
    Town: p.town,
    Postcode: p.postcode,
    Labels: p.i % 7 === 0 ? "wood stove, old list" : "old list",
    "Customer since": `${1 + (p.i % 28)}.${1 + (p.i % 12)}.${2015 + (p.i % 11)}`,
    Remarks: p.i % 10 === 0 ? "Ring twice; the bell is quiet" : "",
  }));
  // What goes wrong in real lists.
  Object.assign(rows[11]!, { "E-Mail": "no email" });
  Object.assign(rows[23]!, { "First name": "", Surname: "" });
  Object.assign(rows[37]!, { Street: "1 Nowhere Lane", Town: "", Postcode: "ZZ 999" });
  Object.assign(rows[52]!, { Mobile: "ask her son" });
  Object.assign(rows[68]!, { "Customer since": "31.2.2019" });
  // Twelve stand in it twice, some of them with another house, and four with another name in the same household.
  for (let k = 0; k < 12; k++) {
    const { "First name": first, Surname, "E-Mail": mail, Mobile } = rows[k + 80]!;
    Object.assign(rows[k + 180]!, { "First name": first, Surname, "E-Mail": mail, Mobile });
  }
  for (let k = 0; k < 4; k++) Object.assign(rows[k + 194]!, { "E-Mail": rows[k + 100]!["E-Mail"] });
  // Some are customers already: themselves, with the number written otherwise, or somebody of their household.
  for (const [k, { name, mail, phone }] of known.entries()) {
    const [first, last] = name.split(" ") as [string, string];
    Object.assign(rows[k + 120]!, {
      "First name": k % 3 === 0 ? "Kim" : first,
      Surname: last,
      "E-Mail": k % 3 === 1 ? mail : "",
      Mobile: phone.replace(/^\+1 (\d{3}) /, "($1) "),
    });
  }
  return Papa.unparse(rows, { delimiter: ";" });
}

function oldList(town: Town): string {
  const rows = people(town, 24, 43).map((p) => ({
    Customer: p.i % 5 === 0 ? `Søren Müller ${p.last}` : `${p.last}, ${p.first}`,
    Telephone: phones(p.i + 400),
    Address: `${p.street}, ${p.town}, ${p.postcode}`,
    Added: `${String(1 + (p.i % 12)).padStart(2, "0")}/${String(10 + (p.i % 19)).padStart(2, "0")}/2021`,
    Notes: p.i % 6 === 0 ? "Café on the ground floor" : "",
  }));
  return Papa.unparse(rows);
}

const contacts = (town: Town): string =>
  people(town, 12, 47)
    .map((p) =>
      [
        "BEGIN:VCARD",
        "VERSION:3.0",
        `N:${p.last};${p.first};;;`,
        `FN:${p.first} ${p.last}`,
        `TEL;TYPE=CELL:${phones(p.i + 500)}`,
        `EMAIL:${p.mail}`,
        `ADR;TYPE=HOME:;;${p.street};${p.town};;${p.postcode};`,
        "END:VCARD",
        "",
      ].join("\r\n"),
    )
    .join("");

const priceList =
  "Item;New price\nChimney sweep;82,00\nStove service;€ 129.00\nGas fire check;98\nRoof garden watered;50\n";

const howOften = ["every 4 weeks", "quarterly", "second Tuesday of the month", "FREQ=MONTHLY;INTERVAL=6", "yearly"];

const repeatFile = (known: readonly Known[]): string =>
  Papa.unparse(
    known.map(({ name, mail }, i) => ({
      Customer: name,
      Email: mail,
      Service: i % 2 === 0 ? "Chimney sweep" : "Gas fire check",
      "How often": i === 3 ? "now and then" : howOften[i % howOften.length]!,
      Window: i === 5 ? "morning" : i % 2 === 0 ? "9-11" : "13:00-15:00",
      Technician: i % 3 === 0 ? "Bram" : "",
      Price: i % 4 === 0 ? "85.00" : "",
    })),
  );
