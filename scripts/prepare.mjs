import { spawn, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { fileURLToPath } from "node:url";

/** What has to be there before anything runs. Uses nothing but Node: it is what makes the rest be there. */
export const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), "..");
const env = { ...process.env, NEXT_TELEMETRY_DISABLED: "1" };

/** Runs a command to its end, or for half an hour at the longest: whatever hangs has failed. A quiet one is heard when it fails. */
export function run(command, args, { env: more = {}, quiet = false } = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: quiet ? ["ignore", "pipe", "pipe"] : "inherit",
      env: { ...env, ...more },
    });
    let said = "";
    for (const stream of [child.stdout, child.stderr]) stream?.on("data", (text) => (said += text));
    const tooLong = setTimeout(() => {
      console.error(`${command} ${args.join(" ")} was still running after ${longestMinutes} minutes.`);
      child.kill("SIGKILL");
    }, longestMinutes * 60_000);
    child.once("error", (error) => console.error(String(error)));
    child.once("close", (status, signal) => {
      clearTimeout(tooLong);
      if (signal === "SIGINT") process.exit(130);
      if (status !== 0) process.stdout.write(said);
      resolve(status ?? 1);
    });
  });
}
const longestMinutes = 30;

/** Installs the packages, unless the ones of this lock file are there already. */
export async function install() {
  const stamp = path.join(root, "node_modules/.hogar-lock");
  const lock = hashOf([path.join(root, "package-lock.json")]);
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === lock) return;
  console.log("Installing packages: the database is compiled here, which takes 4 to 6 minutes.");
  // Not `npm ci`: it refuses a lock file made where the registry lacks other platforms' optional packages.
  if ((await run("npm", ["install", "--no-save", "--no-audit", "--no-fund", "--loglevel=error"])) !== 0)
    fail("The packages could not be installed. Is there a network?");
  writeFileSync(stamp, lock);
}

/** Builds the application, unless it is built from these very sources. */
export async function build({ quiet = false } = {}) {
  const stamp = path.join(root, ".next/hogar-sources");
  const sources = hashOf(
    ["src", "package-lock.json", "next.config.mjs", "tsconfig.json"].flatMap((name) =>
      filesUnder(path.join(root, name)),
    ),
  );
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === sources) return;
  console.log("Building the application: about a minute.");
  if ((await run("npx", ["--no-install", "next", "build"], { quiet })) !== 0)
    fail("The application could not be built.");
  const { build: bundle } = await import("esbuild");
  await bundle({
    absWorkingDir: root,
    entryPoints: ["src/worker/thread.ts"],
    outfile: ".next/hogar-worker.mjs",
    bundle: true,
    platform: "node",
    format: "esm",
    packages: "external",
    tsconfig: "tsconfig.json",
  });
  mkdirSync(path.dirname(stamp), { recursive: true });
  writeFileSync(stamp, sources);
}

/** The path of a Chromium, installing Debian's where there is none: the one without a window, where it can be had, since it takes a third less. */
export async function chromium() {
  const find = () =>
    spawnSync(
      "sh",
      ["-c", "command -v chromium-headless-shell || command -v chromium || command -v chromium-browser"],
      {
        encoding: "utf8",
      },
    ).stdout.trim();
  if (!find()) {
    console.log("Installing Chromium.");
    const get = (name) => `apt-get install -y -qq --no-install-recommends ${name} >/dev/null`;
    await run("sh", ["-c", `apt-get update -qq && (${get("chromium-headless-shell")} || ${get("chromium")})`]);
  }
  return find() || fail("There is no Chromium, and it could not be installed. Install it, then try again.");
}

export function fail(sentence) {
  console.error(sentence);
  process.exit(1);
}

function hashOf(files) {
  const hash = createHash("sha256");
  for (const file of files) hash.update(path.relative(root, file)).update(readFileSync(file));
  return hash.digest("hex");
}

function filesUnder(name) {
  if (!statSync(name).isDirectory()) return [name];
  return readdirSync(name)
    .sort()
    .filter((child) => !child.includes(".test."))
    .flatMap((child) => filesUnder(path.join(name, child)));
}
