import { underAttack, visitorAt } from "./attacker";
import { post } from "../support/http";

/** 19: cards are no more tried with bookings at once than one after the other. */
const app = underAttack();

it("of twelve bookings at once with cards that are declined, five are tried", async () => {
  const triedSoFar = () =>
    app.sql<{ n: number }>("SELECT count(*) AS n FROM payments WHERE from_address IS NOT NULL")[0]!.n;
  const before = triedSoFar();
  const { addressOf, windowsFor, change, itemOf, who } = visitorAt(app);
  const tokens = await Promise.all(
    Array.from({ length: 12 }, () =>
      post(`${app.url}/standins/cards/tokens`, { number: "9900 0000 0000 2004" }).then(
        (answer) => (answer as unknown as { token: string }).token,
      ),
    ),
  );
  const addressId = await addressOf("12 alder");
  const windows = await windowsFor(addressId, "ST");
  await Promise.all(
    tokens.map((cardToken, n) => {
      const { date, from, to } = windows[n % windows.length]!;
      const customer = who(`Tester${n} Finch`, { phone: `+1 201 555 01${String(20 + n)}` });
      return change("book", { addressId, items: [itemOf("ST")], date, from, to, note: "", customer, cardToken });
    }),
  );
  const tried = triedSoFar() - before;
  expect([tried > 0, tried <= 5]).toEqual([true, true]);
});
