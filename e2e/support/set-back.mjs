import { cpSync, readdirSync, rmSync } from "node:fs";
import path from "node:path";

/**
 * Loaded into a server that tests share: told so by its parent, it lets go of its data, takes a copy of another world in
 * its place and opens that; or says which law of the data is broken.
 */
const data = process.env.HOGAR_DATA;

const told = {
  async setBack(template) {
    await globalThis.end?.();
    for (const name of readdirSync(data)) rmSync(path.join(data, name), { recursive: true, force: true });
    cpSync(template, data, { recursive: true, preserveTimestamps: true });
    globalThis.begin();
    return null;
  },
  async check() {
    const { brokenIn } = await import("../../cli/check.ts");
    return brokenIn(path.join(data, "hogar.sqlite")).broken;
  },
};

process.on("message", ({ what, about }) => {
  told[what](about).then(
    (answer) => process.send({ answer }),
    (error) => process.send({ error: String(error?.stack ?? error) }),
  );
});
