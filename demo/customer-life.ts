import type { Hogar } from "@/kernel/hogar";
import { mustPerform, perform } from "@/kernel/operation";
import { archiveCustomer, eraseCustomer } from "@/modules/customers/operations/archive-customer";
import { saveCustomer } from "@/modules/customers/operations/save-customer";
import { saveView } from "@/modules/customers/operations/saved-views";
import { saveSite } from "@/modules/customers/operations/sites";
import { everybody } from "@/core/customers/filter";
import { addressAt } from "@/modules/place/addresses";
import { viewContext } from "@/kernel/operation";
import type { Rows } from "@/store/rows";
import { accessNotes } from "./names";
import type { Random } from "./random";
import { office } from "./set-up";

const parking = ["In the yard.", "On the street until ten.", "Use the harbour car park.", "", "", ""];
const insideNotes = [
  "Asks for a price every year, then books.",
  "Talks a lot: plan ten minutes more.",
  "Pays on reminder.",
];

/** What an office knows of its customers after some years: tags, notes, landlords, bills that go elsewhere, some put away. */
export function knowTheCustomers(hogar: Hogar, random: Random): void {
  const customers = hogar.store
    .sql<Rows["customers"] & { sites: number; jobs: number }>(
      `SELECT c.*, (SELECT count(*) FROM sites WHERE customer_id = c.id) AS sites,
          (SELECT count(*) FROM jobs WHERE customer_id = c.id) AS jobs
        FROM customers c WHERE merged_into IS NULL ORDER BY id`,
    )
    .all();
  const landlords = [...customers].sort((a, b) => b.sites - a.sites || b.jobs - a.jobs || a.id - b.id).slice(0, 3);
  for (const customer of customers) {
    const landlord = landlords.indexOf(customer);
    const tags = [
      ...(landlord >= 0 ? ["landlord"] : []),
      ...(random.chance(0.2) ? ["wood stove"] : []),
      ...(random.chance(0.08) ? ["service plan"] : []),
      ...(random.chance(0.05) ? ["neighbour of ours"] : []),
    ];
    know(hogar, customer, {
      tags,
      technicianNote: random.chance(0.15) ? "Two cats: keep the door shut." : "",
      insideNote: random.chance(0.1) ? random.pick(insideNotes) : "",
      paymentDays: landlord >= 0 ? 30 : null,
      bill:
        landlord === 1
          ? {
              name: "Quayside Lettings",
              mail: "bills@quayside-lettings.example",
              address: "3 Custom House Row, Harbourside",
            }
          : null,
    });
  }
  for (const landlord of landlords) addFlats(hogar, random, landlord.id);
  for (const site of hogar.store
    .sql<{ id: number; customer_id: number }>("SELECT id, customer_id FROM sites WHERE archived_at IS NULL ORDER BY id")
    .all())
    if (random.chance(0.4))
      mustPerform(
        hogar,
        saveSite,
        {
          id: site.id,
          customerId: site.customer_id,
          addressId: null,
          name: "",
          access: random.pick(accessNotes),
          parking: random.pick(parking),
        },
        office,
      );
  putSomeAway(hogar);
  mustPerform(hogar, saveView, { name: "Landlords", filter: { ...everybody, tag: "landlord" } }, office);
  mustPerform(
    hogar,
    saveView,
    { name: "Wood stoves, nothing coming", filter: { ...everybody, tag: "wood stove", noComing: true } },
    office,
  );
}

interface Known {
  tags: string[];
  technicianNote: string;
  insideNote: string;
  paymentDays: number | null;
  bill: { name: string; mail: string; address: string } | null;
}

const know = (hogar: Hogar, customer: Rows["customers"], known: Known): void =>
  void mustPerform(
    hogar,
    saveCustomer,
    {
      id: customer.id,
      name: customer.name,
      mail: customer.mail,
      phone: customer.phone,
      reachedBy: "any",
      source: customer.source,
      reminders: customer.reminders === 1,
      offers: customer.offers === 1,
      ...known,
    },
    office,
  );

/** A landlord has more houses than those that were booked so far. */
function addFlats(hogar: Hogar, random: Random, customerId: number): void {
  const context = viewContext(hogar, office);
  for (const name of ["Flat 1", "Flat 2"]) {
    const { line, postcode } = random.pick(hogar.town!.addresses.filter((a) => a.line.endsWith("Harbourside")));
    const address = addressAt(context, { line, postcode });
    if (address)
      mustPerform(
        hogar,
        saveSite,
        { id: null, customerId, addressId: address.id, name, access: "Key in the office, hook 7.", parking: "" },
        office,
      );
  }
}

/** Some have moved away, and one has asked to be erased. */
function putSomeAway(hogar: Hogar): void {
  const gone = ["Berta Holm", "Otto Lindqvist Saar", "Wanda Pryor", "Ansel Toft"];
  const ids = gone.map(
    (name, i) =>
      mustPerform(
        hogar,
        saveCustomer,
        {
          id: null,
          name,
          mail: `${name.split(" ")[0]!.toLowerCase()}@example.com`,
          phone: `+1 555 01${90 + i}`,
          reachedBy: "phone",
          tags: [],
          source: "",
          paymentDays: null,
          technicianNote: "",
          insideNote: "Has moved away.",
          bill: null,
          reminders: false,
          offers: false,
        },
        office,
      ).id,
  );
  for (const customerId of ids.slice(0, 3)) mustPerform(hogar, archiveCustomer, { customerId, archived: true }, office);
  perform(hogar, eraseCustomer, { customerId: ids[3]! }, office);
}
