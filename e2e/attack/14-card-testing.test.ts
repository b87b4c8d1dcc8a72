import { post } from "../support/http";
import { underAttack, untilSoon, visitorAt } from "./attacker";

/** 14: nobody finds out here which of a list of cards work. */
const app = underAttack();

it("after five declined cards a person helps", async () => {
  const { book, change, jobOf } = visitorAt(app);
  const token = async () =>
    (
      (await (
        await fetch(`${app.url}/standins/cards/tokens`, {
          method: "POST",
          headers: { "content-type": "application/json" },
          body: JSON.stringify({ number: "9900 0000 0000 2004" }),
        })
      ).json()) as { token: string }
    ).token;
  const { link } = (await book("Tester Finch", { code: "ST", more: { cardToken: await token() } })).value;
  const declined = () => app.sql("SELECT 1 FROM payments WHERE job_id = ? AND state = 'declined'", jobOf(link)).length;
  for (let tries = 1; tries < 5; tries++) {
    await untilSoon(app, () => declined() === tries);
    const again = await change(
      "pay-by-card",
      { purpose: "deposit", cardToken: await token() },
      { "x-hogar-link": link },
    );
    expect(again.ok).toBe(true);
  }
  await untilSoon(app, () => declined() === 5);
  const sixth = await post(
    `${app.url}/api/operations/pay-by-card`,
    { purpose: "deposit", cardToken: await token() },
    { "x-hogar-link": link },
  );
  expect(sixth.problem!.code).toBe("too-many-cards");
  expect(app.sql("SELECT 1 FROM security_events WHERE kind = 'card refused'")).toHaveLength(1);
  // Nor does another booking from here go on.
  const other = await book("Another Finch", {
    code: "ST",
    nth: 2,
    customer: { phone: "+1 201 555 0118" },
    more: { cardToken: await token() },
  });
  expect(other.problem!.code).toBe("too-many-cards");
});
