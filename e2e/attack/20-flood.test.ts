import { as, post } from "../support/http";
import { underAttack } from "./attacker";

/** 20: a flood of questions breaks nothing off: what is too much is told so at once, and the business goes on. */
const app = underAttack();

it("of 600 look-ups at once every one is answered, and whoever is signed in is not told to come again", async () => {
  const tomas = await as(app.url, "tomas");
  const [address] = (await post<{ id: string }[]>(`${app.url}/api/views/find-address`, { text: "12 alder" })).value;
  const [service] = app.sql<{ id: number }>("SELECT id FROM services WHERE code = 'SD'");
  const flood = Array.from({ length: 600 }, () =>
    post(`${app.url}/api/views/offers`, { addressId: address!.id, items: [{ serviceId: service!.id }] }),
  );
  const office = Array.from({ length: 5 }, () => post(`${app.url}/api/views/today`, {}, tomas));
  expect((await Promise.all(office)).map(({ status }) => status)).toEqual([200, 200, 200, 200, 200]);
  const answers = await Promise.all(flood);
  const told = answers.filter(({ status }) => status === 503);
  expect(answers.filter(({ status }) => ![200, 429, 503].includes(status))).toEqual([]);
  expect(told.every(({ headers, problem }) => headers.get("retry-after") && problem!.code === "crowded")).toBe(true);
  // And then everybody is answered again.
  expect((await post(`${app.url}/api/views/front-door`, {})).status).not.toBe(503);
});
