import { smallWorld } from "@demo/small-world";
import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { freePort, says } from "./support/serving";

jest.setTimeout(120_000);

const ended = (child: ChildProcess) => new Promise<number | null>((resolve) => child.once("exit", resolve));
const answers = (port: number) =>
  fetch(`http://localhost:${port}/signin`).then(
    (response) => response.ok,
    () => false,
  );

describe("hogar serve", () => {
  let folder: string;
  beforeAll(() => {
    folder = mkdtempSync(path.join(tmpdir(), "hogar-serve-"));
    smallWorld({}, folder).hogar.store.db.close();
  });
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  const start = async (command: string, args: string[]) => {
    const port = await freePort();
    const outermost = spawn(command, [...args, "--port", String(port)], {
      env: { ...process.env, HOGAR_DATA: folder, NODE_ENV: "production" },
    });
    await says(outermost, "Ready on");
    return { outermost, port };
  };

  it("ends wholly when the outermost process is told to stop, within five seconds", async () => {
    const { outermost, port } = await start("npm", ["run", "-s", "hogar", "--", "serve"]);
    expect(await answers(port)).toBe(true);
    const began = Date.now();
    outermost.kill("SIGTERM");
    await ended(outermost);
    expect([Date.now() - began < 5000, await answers(port)]).toEqual([true, false]);
  });

  it("finishes a request that is under way", async () => {
    const { outermost, port } = await start(process.execPath, ["bin/hogar.mjs", "serve"]);
    const underWay = Promise.all(
      Array.from({ length: 12 }, () => fetch(`http://localhost:${port}/book`).then((response) => response.text())),
    );
    // Told to stop while the pages are being made.
    await fetch(`http://localhost:${port}/icon.svg`);
    outermost.kill("SIGTERM");
    const code = ended(outermost);
    expect((await underWay).every((page) => page.includes("</html>"))).toBe(true);
    expect(await code).toBe(0);
  });
});
