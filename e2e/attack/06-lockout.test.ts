import { as, cookiesOf, post } from "../support/http";
import { underAttack } from "./attacker";

/** 6: who guesses at somebody's password shuts out themselves. */
const app = underAttack();

it("a browser that has signed in before goes on, while a guesser is stopped", async () => {
  const known = await as(app.url, "odile");
  const guess = () => post(`${app.url}/api/session`, { mail: "odile@marrowick.example", password: "not this one" });
  const guesses = [];
  for (let n = 0; n < 12; n++) guesses.push(await guess());
  expect([guesses[0]!.problem!.code, guesses.at(-1)!.problem!.code]).toEqual(["wrong-password", "too-many-tries"]);

  const again = await post(
    `${app.url}/api/session`,
    { mail: "odile@marrowick.example", password: "open the door" },
    known,
  );
  expect(again.ok).toBe(true);
  expect(cookiesOf(again)).toContain("hogar=");
  // And nobody else is shut out with them.
  await expect(as(app.url, "tomas")).resolves.toMatchObject({ cookie: expect.any(String) });
  expect(app.sql("SELECT 1 FROM security_events WHERE kind = 'sign-in refused'").length).toBeGreaterThanOrEqual(10);
});
