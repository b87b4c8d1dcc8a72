import { Secret, TOTP } from "otpauth";
import { as, post } from "../support/http";
import { underAttack, visitorAt } from "./attacker";

/** 15: nobody comes by more rights than they were given, and a second factor is one. */
const app = underAttack();

it("figures of money are told to those who may see money", async () => {
  const { ask } = visitorAt(app);
  const tomas = await as(app.url, "tomas");
  const [{ id }] = app.sql<{ id: number }>("SELECT customer_id AS id FROM invoices LIMIT 1") as [{ id: number }];
  expect((await ask("today", {}, tomas)).value).toMatchObject({ booked: { minor: null } });
  expect((await ask("customer", { id, visits: 1, messages: 1 }, tomas)).value).toMatchObject({ invoices: null });
  const byMoney = { page: 0, size: 5, sort: "openMinor", descending: true, search: "" };
  expect((await ask("customers", byMoney, tomas)).status).toBe(403);
});

it("who may say who does what gives nothing that they do not have", async () => {
  const { change } = visitorAt(app);
  const [tomas] = app.sql<{ id: number; name: string; mail: string }>(
    "SELECT id, name, mail FROM people WHERE mail LIKE 'tomas@%'",
  );
  const person = { ...tomas, role: "dispatcher", technicianId: null, active: true };
  expect((await change("save-person", { ...person, given: ["people.change"] }, await as(app.url, "odile"))).ok).toBe(
    true,
  );
  const hands = await as(app.url, "tomas");
  const asOwner = await change("save-person", { ...person, role: "owner" }, hands);
  const asBookkeeper = await change("save-person", { ...person, given: ["people.change", "money.change"] }, hands);
  const [odile] = app.sql<{ id: number; name: string; mail: string }>(
    "SELECT id, name, mail FROM people WHERE mail LIKE 'odile@%'",
  );
  const overOwner = await change(
    "save-person",
    { ...odile, role: "owner", technicianId: null, active: true, password: "seven quiet herons" },
    hands,
  );
  expect([asOwner.status, asBookkeeper.status, overOwner.status]).toEqual([403, 403, 403]);
});

it("a weak password is refused, one's own is changed with the old one, and sessions end one by one", async () => {
  const { ask, change } = visitorAt(app);
  const [here, there] = [await as(app.url, "ines"), await as(app.url, "ines")];
  const to = (old: string, password: string) => post(`${app.url}/api/account/password`, { old, password }, here);
  expect((await to("guessed", "seven quiet herons")).problem!.fields).toHaveProperty("/old");
  expect((await to("open the door", "password123")).problem!.fields).toHaveProperty("/password");
  const { sessions } = (await ask<{ sessions: { name: string; isThis: boolean }[] }>("account", {}, here)).value;
  expect(sessions).toHaveLength(2);
  await change("end-own-session", { session: sessions.find((s) => !s.isThis)!.name }, here);
  expect((await ask("account", {}, there)).status).toBe(401);
});

it("with a second factor the password alone opens nothing", async () => {
  const odile = await as(app.url, "odile");
  const secret = "JBSWY3DPEHPK3PXPJBSWY3DPEHPK3PXP";
  const code = (steps = 0) =>
    new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: Date.now() + steps * 30_000 });
  const added = await post(
    `${app.url}/api/account/add-second-factor`,
    { password: "open the door", secret, code: code() },
    odile,
  );
  expect(added.ok).toBe(true);
  const signIn = (more: object) =>
    post(`${app.url}/api/session`, { mail: "odile@marrowick.example", password: "open the door", ...more });
  expect((await signIn({})).problem!.code).toBe("second-factor");
  expect((await signIn({ code: "000000" })).problem!.code).toBe("wrong-code");
  const right = code();
  expect((await signIn({ code: right })).ok).toBe(true);
  expect((await signIn({ code: right })).problem!.code).toBe("wrong-code");
});
