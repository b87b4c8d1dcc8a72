import { as } from "../support/http";
import { underAttack, visitorAt } from "./attacker";

/** 9: a link that was ended does not come back by the key of its hold. */
const app = underAttack();

it("the key gives out the first link, and none once that was ended; nowhere does it stand to be read", async () => {
  const { addressOf, windowsFor, change, itemOf, who, jobOf } = visitorAt(app);
  const addressId = await addressOf("16 alder");
  const { date, from, to } = (await windowsFor(addressId, "SW"))[0]!;
  const chosen = { addressId, items: [itemOf("SW")], date, from, to };
  const { key } = (await change<{ key: string }>("hold-offer", chosen)).value;
  const book = () =>
    change<{ link: string }>("book", { ...chosen, hold: key, note: "", customer: who("Holder Finch") });
  const first = await book();
  expect((await book()).value.link).toBe(first.value.link);
  await change("renew-link", { jobId: jobOf(first.value.link) }, await as(app.url, "tomas"));
  expect((await book()).problem!.code).toBe("link-ended");
  expect(JSON.stringify(app.sql("SELECT hold_key FROM visits WHERE hold_key IS NOT NULL"))).not.toContain(key);
});
