import { request } from "node:http";
import { as, post } from "../support/http";
import { underAttack, untilSoon, visitorAt } from "./attacker";

/** 16: strange requests get a plain answer, and nothing leaks by the side. */
const app = underAttack();

it("no stack and no failure of ours for strange origins, deep nesting and malformed tokens", async () => {
  const { ask } = visitorAt(app);
  const nested = `${"[".repeat(5000)}${"]".repeat(5000)}`;
  const answers = [
    await ask("front-door", {}, { origin: "null" }),
    await ask("front-door", {}, { origin: "not an origin" }),
    await post(`${app.url}/api/views/front-door`, `{"a":${nested}}`),
    await post(`${app.url}/api/views/front-door`, "{"),
    await ask("my-visit", {}, { "x-hogar-link": "1.\u00e9.x" }),
    await ask("quote", { token: "99999999999999.x" }),
  ];
  expect(answers.map((a) => a.status < 500 && JSON.stringify(a.problem ?? "").includes("    at "))).toEqual(
    answers.map(() => false),
  );
  expect(answers.slice(0, 4).map((a) => a.problem!.code)).toEqual(Array(4).fill("bad-request"));
  for (const path of ["/my/%", "/my/%00", "/my/1.x", "/quote/%E0%A4%A", "/wish/.."]) {
    const status = await new Promise<number>((resolve) =>
      request(app.url + path, (response) => resolve(response.resume().statusCode!)).end(),
    );
    expect([path, status < 500]).toEqual([path, true]);
  }
  expect(app.log()).not.toMatch(/TypeError|RangeError/);
});

it("what is no paper, no picture and no way of asking is answered plainly", async () => {
  const statusOf = (path: string, method = "GET") =>
    new Promise<number>((resolve) =>
      request(app.url + path, { method }, (response) => resolve(response.resume().statusCode!)).end(),
    );
  const { cookie } = await as(app.url, "odile");
  const paper = await fetch(`${app.url}/papers/constructor/1.pdf`, { headers: { cookie } });
  expect([
    paper.status,
    await statusOf("/_next/image?url=%2Ficon.svg&w=640&q=75"),
    await statusOf("/book", "TRACE"),
    await statusOf("/api/views/front-door", "PUT"),
  ]).toEqual([404, 404, 405, 405]);
});

it("an answer names its request", async () => {
  const { ask } = visitorAt(app);
  expect((await ask("front-door", {}, { "x-request-id": "mine" })).headers.get("x-request-id")).toMatch(
    /^(?!mine$)[\w-]{8}$/,
  );
});

it("a price that is not shown is not sent, and what is hidden answers nobody", async () => {
  const { ask, change, addressOf, serviceOf } = visitorAt(app);
  const odile = await as(app.url, "odile");
  const { services } = (
    await ask<{ services: { id: number; code: string }[] }>(
      "setup",
      { part: "services", id: String(serviceOf("SW")) },
      odile,
    )
  ).value;
  const sweep = services.find((s) => s.code === "SW")!;
  const saved = await change("save-service", { ...pick(sweep), showsPrice: false }, odile);
  expect(saved.problem?.fields ?? {}).toEqual({});
  const addressId = await addressOf("12 alder");
  const at = await ask<{ services: { code: string; totalMinor: number; ordered: object }[] }>("services-at", {
    addressId,
  });
  const shown = at.value.services.find((s) => s.code === "SW")!;
  expect(shown.totalMinor).toBe(0);
  expect(JSON.stringify(shown.ordered)).not.toMatch(/"priceMinor":[1-9]/);
  expect((await ask("offers", { addressId, items: [{ serviceId: serviceOf("PO") }] })).problem!.code).toBe(
    "service-not-offered",
  );
});

it("the token of a card is gone once it was used", async () => {
  const { book } = visitorAt(app);
  const cardToken = "tok_used_once_and_no_more";
  await book("Spent Finch", { code: "ST", more: { cardToken } });
  await untilSoon(app, () => app.sql("SELECT 1 FROM outbox WHERE kind = 'charge' AND state <> 'done'").length === 0);
  expect(app.sql("SELECT id FROM outbox WHERE instr(payload, ?) > 0", cardToken)).toEqual([]);
});

it("an owner's site adds nothing to the policy", async () => {
  const { ask, change } = visitorAt(app);
  const odile = await as(app.url, "odile");
  const { frontDoor } = (await ask<{ frontDoor: object }>("setup", {}, odile)).value;
  const answer = await change("save-front-door", { ...frontDoor, sites: ["https://a.example;script-src *"] }, odile);
  expect(answer.ok).toBe(false);
  expect((await fetch(`${app.url}/book`)).headers.get("content-security-policy")).not.toContain("a.example");
});

/** What saving a service takes, of what set-up tells of it. */
function pick(service: object): object {
  const { ...rest } = service as Record<string, unknown>;
  for (const told of ["promised", "history", "tax"]) delete rest[told];
  return rest;
}
