import { changePrice, roundingNamed } from "@/core/catalogue/prices";
import { Refusal } from "@/core/problems";
import { Id, input, Money, OneOf } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";

/** Prices of many services at once: a share up or down, and how they are rounded. */
const ChangePrices = input({
  serviceIds: Type.Array(Id, { minItems: 1, maxItems: 1000, uniqueItems: true }),
  basisPoints: Type.Integer({ minimum: -9000, maximum: 100_000 }),
  rounding: OneOf(["0.10", "0.50", "1", "5", "ending in 9"]),
});
/** Prices put back as they were, by service. */
const SetPrices = input({
  prices: Type.Array(input({ serviceId: Id, priceMinor: Money }), { minItems: 1, maxItems: 1000 }),
});

/** Changes the prices of many services at once. Answers what they were, so that it can be undone. */
export const changePrices = defineOperation({
  name: "change-prices",
  access: "setup.change",
  input: ChangePrices,
  run({ sql, business }, { serviceIds, basisPoints, rounding }) {
    const before = serviceIds.map((serviceId) => {
      const service = sql<{ price_minor: number }>("SELECT price_minor FROM services WHERE id = ?").get(serviceId);
      if (!service) throw new Refusal("not-found");
      return { serviceId, priceMinor: service.price_minor };
    });
    for (const { serviceId, priceMinor } of before)
      sql("UPDATE services SET price_minor = ? WHERE id = ?").run(
        changePrice(priceMinor, basisPoints, roundingNamed(rounding, business.currency)),
        serviceId,
      );
    return { before };
  },
});

/** Puts prices to given amounts: the undo of a change of many. */
export const setPrices = defineOperation({
  name: "set-prices",
  access: "setup.change",
  input: SetPrices,
  run({ sql }, { prices }) {
    for (const { serviceId, priceMinor } of prices)
      if (sql("UPDATE services SET price_minor = ? WHERE id = ?").run(priceMinor, serviceId).changes === 0)
        throw new Refusal("not-found");
  },
});
