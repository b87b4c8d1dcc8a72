import { defineOperation } from "@/kernel/operation";
import { addressOf } from "@/modules/place/addresses";
import { zoneOf } from "@/modules/place/zones";
import { findSame, notePossibleDuplicate } from "../same-person";
import { SaveCustomer } from "../inputs";
import { storeSite } from "../customers";
import { storeCustomer } from "../storing";

/** Makes or changes a customer, with a first site where one is known. */
export const saveCustomer = defineOperation({
  name: "save-customer",
  access: "customers.change",
  about: { id: "customer" },
  input: SaveCustomer,
  run(context, { site = null, ...customer }) {
    const address = site ? addressOf(context, site.addressId) : null;
    const places = address ? [`${address.line}, ${address.postcode}`] : [];
    const known = customer.id === null ? findSame(context, { ...customer, places }).possible : [];
    const id = storeCustomer(context, customer);
    // Made all the same, although somebody may be the same: put side by side.
    for (const other of known) notePossibleDuplicate(context, other, id);
    if (site && address) {
      storeSite(context, id, address, { ...site, zoneId: zoneOf(context, address)?.id ?? null });
    }
    return { id };
  },
});
