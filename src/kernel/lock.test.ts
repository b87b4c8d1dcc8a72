import { isOrigin } from "@/core/look/origins";
import { addSecret, forgetOldSecrets, keepToOurselves, keptSecrets } from "@/registry/secrets";
import { mkdirSync, mkdtempSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { hashed, isHashOf, keysOf, sealed, unsealed } from "./keys";
import { seenText } from "./seen-text";

describe("keys", () => {
  it("of one use open nothing of another, and earlier secrets still open what they have sealed", () => {
    const [old, now] = [keysOf(["first secret"]), keysOf(["second secret", "first secret"])];
    const kept = hashed(old, "links", "a nonce");
    expect([isHashOf(now, "links", "a nonce", kept), isHashOf(now, "holds", "a nonce", kept)]).toEqual([true, false]);
    expect(isHashOf(keysOf(["second secret"]), "links", "a nonce", kept)).toBe(false);
    expect(unsealed(now, "second factors", sealed(old, "second factors", "words"))).toBe("words");
    expect(unsealed(now, "codes", sealed(old, "second factors", "words"))).toBeNull();
  });
});

describe("the data folder", () => {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-lock-"));
  afterAll(() => rmSync(folder, { recursive: true }));
  const mode = (name: string) => (statSync(path.join(folder, name)).mode & 0o777).toString(8);

  it("is readable by its user alone, also where it was open before", () => {
    mkdirSync(path.join(folder, "standins"), { mode: 0o755 });
    writeFileSync(path.join(folder, "hogar.sqlite"), "", { mode: 0o644 });
    keepToOurselves(folder);
    keptSecrets(folder);
    expect(["", "standins", "hogar.sqlite", "secret"].map(mode)).toEqual(["700", "700", "600", "600"]);
  });

  it("takes a new secret, with the old ones or without", () => {
    const [first] = keptSecrets(folder);
    addSecret(folder);
    expect([keptSecrets(folder).length, keptSecrets(folder)[1]]).toEqual([2, first]);
    forgetOldSecrets(folder);
    expect([keptSecrets(folder).length, keptSecrets(folder).includes(first!)]).toEqual([1, false]);
  });
});

describe("what comes in", () => {
  it("is only what can be seen; signs that join letters and emoji stay", () => {
    expect(seenText({ name: "Mi\u200Bra\u202E\u0000", list: ["👨\u200D👩\u200D👧\nnext line"] })).toEqual({
      name: "Mira",
      list: ["👨\u200D👩\u200D👧\nnext line"],
    });
  });

  it("is refused where it is nested deeper than anything we ask", () => {
    let deep: unknown = "bottom";
    for (let i = 0; i < 60; i++) deep = [deep];
    expect(() => seenText(deep)).toThrow(RangeError);
  });

  it("adds nothing to a header: a site is its origin, and nothing beside", () => {
    expect(["https://a.example", "http://a.example:8080"].map(isOrigin)).toEqual([true, true]);
    expect(
      ["https://a.example;script-src *", "https://a.example x", "'none'", "https://a.example\n"].map(isOrigin),
    ).toEqual([false, false, false, false]);
  });
});
