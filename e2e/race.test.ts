import { inTwoPlaces } from "@demo/two-places";
import Database from "better-sqlite3";
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { type Running, startDemo } from "./support/server";
import { says } from "./support/serving";

/** What many do at once, and what a crash leaves behind. */
jest.setTimeout(900_000);

const post = async (url: string, body: unknown, headers: Record<string, string> = {}) => {
  const response = await fetch(url, {
    method: "POST",
    headers: { "content-type": "application/json", ...headers },
    body: JSON.stringify(body),
  });
  return {
    status: response.status,
    body: (await response.json()) as {
      ok: boolean;
      value?: unknown;
      problem?: { code: string; fields?: Record<string, string>; details?: { offers: { from: number }[] } };
    },
    headers: response.headers,
  };
};

describe("over HTTP", () => {
  let app: Running;
  beforeAll(async () => void (app = await startDemo()));
  afterAll(() => app?.stop());

  it("of fifty who book the last free window at once, one gets it and 49 the nearest offers", async () => {
    const address = app.sql<{ line: string }>("SELECT line FROM sites WHERE line LIKE '%Northfield'")[0]!.line;
    const found = await post(`${app.url}/api/views/find-address`, { text: address });
    const addressId = (found.body.value as { id: string }[])[0]!.id;
    // It is hidden, and booked by its own link.
    const { id: serviceId, slug } = app.sql<{ id: number; slug: string }>(
      "SELECT id, slug FROM services WHERE code = 'PO'",
    )[0]!;
    const offers = async () =>
      (
        (await post(`${app.url}/api/views/offers`, { addressId, items: [{ serviceId }], slug })).body.value as {
          windows: { date: string; from: number; to: number }[];
        }
      ).windows;
    const bookAt = (window: { date: string; from: number; to: number }, n: number) =>
      post(`${app.url}/api/operations/book`, {
        addressId,
        items: [{ serviceId }],
        slug,
        ...window,
        note: "",
        customer: { name: `Customer ${n}`, mail: `customer${n}@example.com`, phone: "+1 555 0142", reminders: false },
      });

    // Book one window until a single place is left in it: taking that one back again leaves the last.
    const { date, from, to } = (await offers())[3]!;
    let last: number | null = null;
    for (let n = 100; (await offers()).some((o) => o.from === from && o.to === to); n++) {
      const booked = await bookAt({ date, from, to }, n);
      const link = (booked.body.value as { link: string }).link;
      last = app.sql<{ id: number }>(
        "SELECT v.id FROM visits v JOIN links l ON l.job_id = v.job_id WHERE l.id = ?",
        Number(link.split(".")[0]),
      )[0]!.id;
    }
    const session = await post(`${app.url}/api/session`, {
      mail: "tomas@marrowick.example",
      password: "open the door",
    });
    const cookie = session.headers.get("set-cookie")!.split(";")[0]!;
    expect(
      (await post(`${app.url}/api/operations/cancel-visit`, { visitId: last, refundDeposit: false }, { cookie })).body
        .ok,
    ).toBe(true);

    const results = await Promise.all(Array.from({ length: 50 }, (_, n) => bookAt({ date, from, to }, n)));
    expect(results.filter((r) => r.body.ok)).toHaveLength(1);
    const lost = results.filter((r) => !r.body.ok);
    expect(new Set(lost.map((r) => r.body.problem!.code))).toEqual(new Set(["window-gone"]));
    for (const { body } of lost) expect(body.problem!.details!.offers.length).toBeGreaterThan(0);

    expect(app.sql(inTwoPlaces)).toEqual([]);
    expect(
      app.sql("SELECT count(*) AS n FROM customers WHERE name LIKE 'Customer _' OR name LIKE 'Customer __'"),
    ).toEqual([{ n: 1 }]);
    expect(app.sql("SELECT * FROM pragma_foreign_key_check")).toEqual([]);
  });

  it("requests of other sites, without a session or with a strange form are refused", async () => {
    const zone = { id: null };
    expect((await post(`${app.url}/api/operations/save-zone`, zone)).status).toBe(401);
    expect(
      (await post(`${app.url}/api/operations/save-zone`, zone, { origin: "https://elsewhere.example" })).body.problem!
        .code,
    ).toBe("bad-request");
    expect((await post(`${app.url}/api/operations/record-charge`, {})).status).toBe(404);
    expect((await post(`${app.url}/api/operations/constructor`, {})).status).toBe(404);
    expect((await post(`${app.url}/api/views/money`, {}, { "x-hogar-link": "1.forged" })).status).toBe(401);
    expect(
      (await post(`${app.url}/api/notices/cards`, { key: "x", outcome: {} }, { "x-signature": "00" })).body.problem!
        .code,
    ).toBe("bad-request");
    expect(
      (
        await fetch(`${app.url}/api/operations/book`, {
          method: "POST",
          headers: { "content-type": "text/plain" },
          body: "{}",
        })
      ).status,
    ).toBe(400);
  });

  it("pages carry the headers that keep strangers out", async () => {
    const { headers } = await fetch(`${app.url}/book`);
    expect(headers.get("content-security-policy")).toMatch(/script-src 'self' 'nonce-/);
    expect([
      headers.get("x-content-type-options"),
      headers.get("referrer-policy"),
      headers.get("x-powered-by"),
    ]).toEqual(["nosniff", "no-referrer", null]);
  });

  it("guessing a password is slowed down", async () => {
    const codes = [];
    for (let i = 0; i < 12; i++)
      codes.push(
        (await post(`${app.url}/api/session`, { mail: "ines@marrowick.example", password: `guess ${i}` })).body.problem
          ?.code,
      );
    expect(codes.slice(0, 5)).toEqual(Array(5).fill("wrong-password"));
    expect(codes.at(-1)).toBe("too-many-tries");
  });
});

describe("a worker that dies between a charge and its record", () => {
  it("is followed by one that finds the charge made, once", async () => {
    const folder = mkdtempSync(path.join(tmpdir(), "hogar-crash-"));
    const root = path.resolve(__dirname, "..");
    const env = { ...process.env, HOGAR_DATA: folder };
    const dying = spawn(process.execPath, ["--import", "tsx", path.join(__dirname, "support/dying-worker.ts")], {
      cwd: root,
      env,
    });
    const [code, signal] = await new Promise<[number | null, string | null]>((resolve) =>
      dying.once("exit", (c, s) => resolve([c, s])),
    );
    expect([code, signal]).toEqual([null, "SIGKILL"]);

    const db = new Database(path.join(folder, "hogar.sqlite"), { readonly: true });
    const standin = new Database(path.join(folder, "standins/services.sqlite"), { readonly: true });
    const payment = () => db.prepare<[], { state: string }>("SELECT state FROM payments").get()!.state;
    expect(standin.prepare("SELECT count(*) AS n FROM charges").get()).toEqual({ n: 1 });
    expect(payment()).toBe("asked");

    const next = spawn(process.execPath, ["bin/hogar.mjs", "worker"], { cwd: root, env });
    await says(next, "The worker runs");
    await new Promise<void>((resolve, reject) => {
      const look = setInterval(() => payment() === "received" && (clearInterval(look), resolve()), 100);
      next.once("exit", () => reject(new Error("The worker ended")));
    });
    const gone = new Promise((resolve) => next.once("exit", resolve));
    next.kill("SIGTERM");
    await gone;

    expect(standin.prepare("SELECT count(*) AS n FROM charges").get()).toEqual({ n: 1 });
    expect(
      db
        .prepare(
          "SELECT count(*) AS n, sum(amount_minor) AS minor FROM ledger_entries WHERE account = 'card' AND amount_minor > 0",
        )
        .get(),
    ).toEqual({ n: 1, minor: 4000 });
    expect(db.prepare("SELECT state FROM jobs").get()).toEqual({ state: "agreed" });
    db.close();
    standin.close();
    rmSync(folder, { recursive: true, force: true });
  });
});
