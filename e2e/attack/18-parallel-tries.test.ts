import { post } from "../support/http";
import { underAttack } from "./attacker";

/** 18: who guesses at a password with many requests at once has no more tries than one after the other, and nobody waits for it. */
const app = underAttack();

it("of 120 wrong passwords at once ten are looked at, and pages are answered meanwhile", async () => {
  const guesses = Promise.all(
    Array.from({ length: 120 }, (_, n) =>
      post(`${app.url}/api/session`, { mail: "odile@marrowick.example", password: `guess ${n}` }),
    ),
  );
  // Asked while they are looked at; what counts is that it is answered before all of them are.
  const order: string[] = [];
  const page = fetch(`${app.url}/signin`).finally(() => order.push("page"));
  const answers = await guesses.finally(() => order.push("guesses"));
  expect((await page).status).toBe(200);
  expect(order[0]).toBe("page");
  const looked = answers.filter(({ problem }) => problem!.code === "wrong-password").length;
  expect([looked > 0 && looked <= 10, answers.filter(({ status }) => [429, 503].includes(status)).length]).toEqual([
    true,
    120 - looked,
  ]);
  // And what was tried is kept: whoever restarts the server gives nobody new tries.
  expect(app.sql<{ n: number }>("SELECT max(n) AS n FROM tries")[0]!.n).toBeGreaterThan(10);
});
