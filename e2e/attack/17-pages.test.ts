import { underAttack } from "./attacker";

/** 16, too: pages have a limit as well. */
const app = underAttack({
  env: { HOGAR_FRONT_DOOR_PER_MINUTE: "5", HOGAR_URL: "https://book.marrowick.example" },
});

it("whoever loads page after page is asked to wait", async () => {
  const statuses = [];
  for (let n = 0; n < 25; n++) statuses.push((await fetch(`${app.url}/book`)).status);
  expect([statuses[0], statuses.at(-1)]).toEqual([200, 429]);
});

it("whoever came by https is told to come by it from now on", async () => {
  const { headers } = await fetch(`${app.url}/api/views/front-door`, { method: "HEAD" });
  expect(headers.get("strict-transport-security")).toMatch(/^max-age=\d+/);
});
