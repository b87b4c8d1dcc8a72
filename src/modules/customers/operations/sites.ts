import { Refusal } from "@/core/problems";
import { visitStates } from "@/core/visits/states";
import { Id, input, OrNull } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { addressOf } from "@/modules/place/addresses";
import { AddressId } from "@/modules/place/inputs";
import { zoneOf } from "@/modules/place/zones";
import { Type } from "@sinclair/typebox";
import { siteDetails } from "../inputs";
import { storeSite } from "../customers";

const SaveSite = input({
  id: OrNull(Id),
  customerId: Id,
  /** Null leaves the address as it is. */
  addressId: OrNull(AddressId),
  ...siteDetails,
});
const ArchiveSite = input({ siteId: Id, archived: Type.Boolean() });

/** Adds or changes a place of a customer. */
export const saveSite = defineOperation({
  name: "save-site",
  access: "customers.change",
  about: { id: "site", customerId: "customer" },
  input: SaveSite,
  run(context, { id, customerId, addressId, ...details }) {
    const { sql } = context;
    if (!sql("SELECT 1 FROM customers WHERE id = ? AND merged_into IS NULL AND erased_at IS NULL").get(customerId))
      throw new Refusal("not-found");
    const address = addressId === null ? null : addressOf(context, addressId);
    const zoneId = address ? (zoneOf(context, address)?.id ?? null) : null;
    if (id === null) {
      if (!address) throw new Refusal("invalid-input", { fields: { "/addressId": "Choose an address." } });
      return { id: storeSite(context, customerId, address, { zoneId, ...details }) };
    }
    if (address && comesTo(context, id))
      throw new Refusal("in-use", {
        sentence: "Visits are promised at this address. Add the new address as another site, and move them there.",
      });
    const { changes } = sql("UPDATE sites SET name = ?, access = ?, parking = ? WHERE id = ? AND customer_id = ?").run(
      details.name.trim(),
      details.access.trim(),
      details.parking.trim(),
      id,
      customerId,
    );
    if (changes === 0) throw new Refusal("not-found");
    if (address)
      sql("UPDATE sites SET line = ?, postcode = ?, lng = ?, lat = ?, zone_id = ? WHERE id = ?").run(
        address.line,
        address.postcode,
        address.lng,
        address.lat,
        zoneId,
        id,
      );
    return { id };
  },
});

/** Puts away a place where nobody goes any more, or brings it back. What was done there stays. */
export const archiveSite = defineOperation({
  name: "archive-site",
  access: "customers.change",
  about: { siteId: "site" },
  input: ArchiveSite,
  run(context, { siteId, archived }) {
    if (archived && comesTo(context, siteId))
      throw new Refusal("in-use", {
        sentence: "Somebody is still to come here. Cancel those visits and repeats first.",
      });
    const { changes } = context
      .sql("UPDATE sites SET archived_at = ? WHERE id = ?")
      .run(archived ? context.now : null, siteId);
    if (changes === 0) throw new Refusal("not-found");
  },
});

const comesTo = ({ sql }: OperationContext, siteId: number): boolean =>
  sql(
    `SELECT 1 FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.site_id = @siteId AND v.state IN ${visitStates.sql("expect")}
      UNION ALL SELECT 1 FROM repeats WHERE site_id = @siteId AND state = 'active'`,
  ).get({ siteId }) !== undefined;
