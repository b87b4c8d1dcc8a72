import type { Permission } from "@/core/people/permissions";
import { personActor } from "@/core/people/permissions";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { office, saidOf, smallWorld } from "@demo/small-world";
import { Secret, TOTP } from "otpauth";
import { endSessions } from "./operations/end-sessions";
import { endOwnSession } from "./operations/end-own-session";
import { savePerson } from "./operations/save-person";
import { saveSecurity } from "./operations/save-security";
import { addOwnFactor, changeOwnPassword, endOthers, removeOwnFactor } from "./own-account";
import { passwordProblem } from "./passwords";
import { actorOfSession, signIn } from "./sessions";
import { account } from "./views/account";

const password = "open the door";
const odile = { mail: "odile@marrowick.example", password };
type World = ReturnType<typeof smallWorld>;

async function signedIn(world: World, more: { code?: string } = {}) {
  const result = await signIn(world.hogar, { ...odile, ...more });
  if (!result.ok) throw new Error(result.problem.sentence);
  return actorOfSession(world.hogar, result.value.sessionId)!;
}
const codeOf = (secret: string, steps = 0) =>
  new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: Date.now() + steps * 30_000 });
const secret = "JBSWY3DPEHPK3PXPJBSWY3DPEHPK3PXP";
const person = (role: "dispatcher" | "owner", more: { given?: Permission[] } = {}) => ({
  id: null,
  name: "Tomas Arden",
  mail: "tomas@example.com",
  role,
  technicianId: null,
  active: true,
  password: "seven quiet herons",
  ...more,
});

describe("a password", () => {
  it.each(["short", "password12", "qwertyuiop123", "aaaaaaaaaaaa", "odilebrandt1", "Odile@marrowick"])(
    "that is easily found is refused: %s",
    (tried) => expect(passwordProblem(tried, ["Odile Brandt", "odile@marrowick.example"])).not.toBeNull(),
  );

  it("of a few words is good", () => expect(passwordProblem("seven quiet herons", ["Odile Brandt"])).toBeNull());

  it("is changed by oneself, with the old one, and signs the others out", async () => {
    const world = smallWorld();
    const [here, there] = [await signedIn(world), await signedIn(world)];
    await expect(
      changeOwnPassword(world.hogar, here, { old: "not it", password: "seven quiet herons" }),
    ).rejects.toMatchObject({
      problem: { fields: { "/old": "This is not your password." } },
    });
    await changeOwnPassword(world.hogar, here, { old: password, password: "seven quiet herons" });
    expect(endOthers(world.hogar, here)).toBe(1);
    const left = look(world.hogar, account, {}, here);
    expect(left.ok && left.value.sessions.map((s) => s.isThis)).toEqual([true]);
    expect(perform(world.hogar, endOwnSession, { session: there.session! }, here)).toMatchObject({ ok: false });
    expect(await signIn(world.hogar, odile)).toMatchObject({ problem: { code: "wrong-password" } });
    expect(await signIn(world.hogar, { ...odile, password: "seven quiet herons" })).toMatchObject({ ok: true });
  });
});

describe("a second factor", () => {
  const withFactor = async () => {
    const world = smallWorld();
    const actor = await signedIn(world);
    const recovery = await addOwnFactor(world.hogar, actor, { password, secret, code: codeOf(secret) });
    return { world, actor, recovery };
  };

  it("is asked for after the password, and each of its codes counts once", async () => {
    const { world } = await withFactor();
    expect(await signIn(world.hogar, odile)).toMatchObject({ problem: { code: "second-factor" } });
    expect(await signIn(world.hogar, { ...odile, code: "000000" })).toMatchObject({ problem: { code: "wrong-code" } });
    const code = codeOf(secret);
    expect(await signIn(world.hogar, { ...odile, code })).toMatchObject({ ok: true });
    expect(await signIn(world.hogar, { ...odile, code })).toMatchObject({ problem: { code: "wrong-code" } });
    expect(await signIn(world.hogar, { ...odile, code: codeOf(secret, 1) })).toMatchObject({ ok: true });
  });

  it("is got around by a recovery code, once each", async () => {
    const { world, recovery } = await withFactor();
    expect(new Set(recovery).size).toBe(8);
    expect(await signIn(world.hogar, { ...odile, code: recovery[3]!.toUpperCase() })).toMatchObject({ ok: true });
    expect(await signIn(world.hogar, { ...odile, code: recovery[3]! })).toMatchObject({
      problem: { code: "wrong-code" },
    });
    expect(await signIn(world.hogar, { ...odile, code: recovery[4]! })).toMatchObject({ ok: true });
  });

  it("is demanded by role: nothing else can be done before, and it is not taken away", async () => {
    const world = smallWorld();
    const lock = { unprovedEach: 3, unprovedPercent: 60, unprovedADay: 20 };
    mustPerform(world.hogar, saveSecurity, { ...lock, provedEach: 1000, secondFactorRoles: ["owner"] }, office);
    const actor = await signedIn(world);
    expect([actor.mustEnrol, actor.permissions]).toEqual([true, []]);
    expect(look(world.hogar, account, {}, actor)).toMatchObject({ value: { mustHaveFactor: true, hasFactor: false } });
    await addOwnFactor(world.hogar, actor, { password, secret, code: codeOf(secret) });
    const after = await signedIn(world, { code: codeOf(secret) });
    expect(after.permissions).toContain("setup.change");
    await expect(removeOwnFactor(world.hogar, after, { password })).rejects.toThrow(/must have a second factor/);
  });

  it("stands nowhere to be read", async () => {
    const { world, recovery } = await withFactor();
    const kept = JSON.stringify(
      ["people", "audit_changes", "outbox"].map((t) => world.hogar.store.sql(`SELECT * FROM ${t}`).all()),
    );
    expect(kept).not.toContain(secret);
    for (const code of recovery) expect(kept).not.toContain(code);
  });

  it("has five tries for one password, also where hundreds come at once or after a restart; a new password has its own", async () => {
    const { world, actor } = await withFactor();
    const outcomes = await Promise.all(
      Array.from({ length: 60 }, (_, n) =>
        signIn(world.hogar, { ...odile, code: String(n).padStart(6, "0") }).then(
          (result) => (result.ok ? "in" : result.problem.code),
          () => "too-many-tries",
        ),
      ),
    );
    expect(outcomes.filter((code) => code === "wrong-code").length).toBeLessThanOrEqual(5);
    for (let n = 0; n < 6; n++) await signIn(world.hogar, { ...odile, code: "000000" });
    // What is counted is in the database: nothing of it lives in the process.
    const right = { ...odile, code: codeOf(secret, 1) };
    expect(await signIn(world.hogar, right)).toMatchObject({ problem: { code: "too-many-codes" } });
    await changeOwnPassword(world.hogar, actor, { old: password, password: "seven quiet herons" });
    expect(await signIn(world.hogar, { ...right, password: "seven quiet herons" })).toMatchObject({ ok: true });
  });
});

describe("rights", () => {
  const clerk = personActor({
    id: 9,
    name: "Ines",
    role: "dispatcher",
    technicianId: null,
    given: ["people.change"],
  });

  it("are given by nobody who does not have them, and nobody changes who has more", () => {
    const world = smallWorld();
    expect(saidOf(perform(world.hogar, savePerson, person("owner"), clerk))).toMatch(/^You cannot give or change/);
    expect(saidOf(perform(world.hogar, savePerson, person("dispatcher", { given: ["money.change"] }), clerk))).toMatch(
      /^You cannot give or change/,
    );
    expect(perform(world.hogar, savePerson, person("dispatcher"), clerk)).toMatchObject({ ok: true });
    const owner = { ...person("owner"), id: 1, name: "Odile Brandt", mail: odile.mail };
    expect(saidOf(perform(world.hogar, savePerson, owner, clerk))).toMatch(/^You cannot give or change/);
  });

  it("of whoever has more are touched by nobody who has fewer: neither their sessions nor what their role must have", async () => {
    const world = smallWorld();
    await signedIn(world);
    expect(saidOf(perform(world.hogar, endSessions, { personId: 1 }, clerk))).toMatch(/^You cannot give or change/);
    const rules = { unprovedEach: 3, provedEach: 10, unprovedPercent: 30, unprovedADay: 10 };
    const ask = (roles: ("owner" | "technician")[]) =>
      saidOf(perform(world.hogar, saveSecurity, { ...rules, secondFactorRoles: roles }, clerk));
    expect(ask(["owner"])).toMatch(/^You cannot give or change/);
    expect(ask(["technician"])).toBe("done");
  });

  it("and refused sign-ins stand in the log of the lock", async () => {
    const world = smallWorld();
    await signIn(world.hogar, { ...odile, password: "guessed it maybe" }, { browser: "", address: "192.0.2.7" });
    mustPerform(world.hogar, savePerson, { ...person("dispatcher"), id: null }, office);
    expect(
      world.hogar.store.sql("SELECT kind, who, address FROM security_events WHERE kind = 'sign-in refused'").all(),
    ).toEqual([{ kind: "sign-in refused", who: odile.mail, address: "192.0.2.7" }]);
  });
});
