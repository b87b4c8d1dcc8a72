import type { Address } from "@/gateways/types";
import type { Hogar } from "@/kernel/hogar";
import * as marrowick from "./marrowick";
import { firstNames, lastNames } from "./names";
import { type Random } from "./random";

export interface DemoCustomer {
  name: string;
  mail: string;
  phone: string;
  reminders: boolean;
  sites: Address[];
}

/** Customers with a site or two each; nearly half of them in Northfield. */
export function makeCustomers(hogar: Hogar, random: Random, count: number): DemoCustomer[] {
  const all = hogar.town!.addresses.filter((a) => a.postcode !== marrowick.outsidePostcode);
  const inNorthfield = all.filter((a) => a.line.endsWith("Northfield"));
  const taken = new Set<string>();
  const site = () => {
    for (;;) {
      const address = random.pick(random.chance(0.4) ? inNorthfield : all);
      if (taken.size >= all.length || !taken.has(address.id)) return (taken.add(address.id), address);
    }
  };
  const before: string[] = [];
  // One household of two shares a mail.
  return Array.from({ length: count }, (_, i) => {
    const first = random.pick(firstNames);
    const last = random.pick(lastNames);
    const mail =
      i === 7 ? "bounce@example.com" : i === 12 ? before[11]! : `${first}.${last}${i}@example.com`.toLowerCase();
    before.push(mail);
    return {
      name: `${first} ${last}`,
      mail,
      phone: `+1 ${201 + Math.floor(i / 90)} 555 01${String(i % 90).padStart(2, "0")}`,
      reminders: random.chance(0.95),
      sites: [site(), ...(random.chance(0.28) ? [site()] : [])],
    };
  });
}
