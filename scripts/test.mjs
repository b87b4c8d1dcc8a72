import { mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { build, chromium, install, root, run } from "./prepare.mjs";

/**
 * `npm test`: format, types, lint, circles, what nobody uses, unit tests with coverage, build, weight, and the real
 * interface. What does not need each other runs at the same time. The last line counts. `npm test -- PATH…` runs the tests
 * under these paths alone, with what they need.
 */
await install();
let passed = 0;
let failed = 0;
/** Files of tests, with how long each took in seconds. */
const took = [];

const named = process.argv.slice(2);
if (named.length) await only(named);
else await all();

console.log(`\nThe ten slowest files:\n${slowest().join("\n")}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);

async function all() {
  await Promise.all([jest("unit", ["--coverage", "--maxWorkers=2"]), checks()]);
  await jest("e2e", ["--maxWorkers=2", "--forceExit"], { CHROMIUM: await chromium() });
}

async function checks() {
  await build({ quiet: true });
  await step("types", "types");
  await step("lint", "lint", "--max-warnings", "0");
  await step("format", "format:check");
  await step("rows as the migrations say", "rows", "--check");
  await step("no circles", "circles");
  await step("nothing unused", "unused");
  await step("weight", "weight");
}

async function only(paths) {
  const ofInterface = paths.filter((name) => path.relative(root, path.resolve(name)).startsWith("e2e"));
  const units = paths.filter((name) => !ofInterface.includes(name));
  if (units.length) await jest("unit", units);
  if (ofInterface.length === 0) return;
  await build();
  await jest("e2e", ["--maxWorkers=2", "--forceExit", ...ofInterface], { CHROMIUM: await chromium() });
}

async function step(name, script, ...args) {
  const words = ["run", "--silent", script, ...(args.length ? ["--", ...args] : [])];
  count(name, (await run("npm", words, { quiet: true })) === 0);
}

function count(name, ok) {
  console.log(`${ok ? "ok" : "not ok"}: ${name}`);
  if (ok) passed++;
  else failed++;
}

/** Runs a project of Jest in a temporary folder of its own: a test that leaves something there has failed. */
async function jest(project, args, env) {
  const folder = mkdtempSync(path.join(tmpdir(), `hogar-${project}-run-`));
  const report = path.join(folder, "report.json");
  const all = ["--no-install", "jest", "--selectProjects", project, "--json", `--outputFile=${report}`, ...args];
  const status = await run("npx", all, { env: { ...env, TMPDIR: folder } });
  try {
    const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites, testResults } = JSON.parse(
      readFileSync(report, "utf8"),
    );
    passed += numPassedTests;
    failed += numFailedTests + numRuntimeErrorTestSuites;
    if (status !== 0 && numFailedTests + numRuntimeErrorTestSuites === 0) count(`${project}: as Jest says`, false);
    for (const { name, startTime, endTime } of testResults)
      took.push({ name: path.relative(root, name), seconds: (endTime - startTime) / 1_000 });
  } catch {
    count(`${project}: a report`, false);
  }
  const left = readdirSync(folder).filter((name) => name.startsWith("hogar-"));
  count(`${project}: nothing left behind${left.length ? `, but ${left.join(", ")}` : ""}`, left.length === 0);
  rmSync(folder, { recursive: true, force: true });
}

function slowest() {
  took.sort((a, b) => b.seconds - a.seconds);
  return took.slice(0, 10).map(({ name, seconds }) => `${seconds.toFixed(1).padStart(7)} s  ${name}`);
}
