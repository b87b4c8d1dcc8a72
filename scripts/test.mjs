import { mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { build, chromium, install, run } from "./prepare.mjs";

/** `npm test`: format, types, lint, circles, what nobody uses, unit tests with coverage, build, weight, and the real interface. The last line counts. */
install();
let passed = 0;
let failed = 0;

step("format", "format:check");
step("types", "types");
step("lint", "lint", "--max-warnings", "0");
step("rows as the migrations say", "rows", "--check");
step("no circles", "circles");
step("nothing unused", "unused");
jest("unit", ["--coverage", "--maxWorkers=2"]);
build();
step("weight", "weight");
jest("e2e", ["--maxWorkers=2", "--forceExit"], { CHROMIUM: chromium() });

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);

function step(name, script, ...args) {
  count(name, run("npm", ["run", "--silent", script, ...(args.length ? ["--", ...args] : [])]) === 0);
}

function count(name, ok) {
  console.log(`${ok ? "ok" : "not ok"}: ${name}`);
  if (ok) passed++;
  else failed++;
}

/** Runs a project of Jest in a temporary folder of its own: a test that leaves something there has failed. */
function jest(project, args, more) {
  const folder = mkdtempSync(path.join(tmpdir(), `hogar-${project}-run-`));
  const report = path.join(folder, "report.json");
  const all = ["--no-install", "jest", "--selectProjects", project, "--json", `--outputFile=${report}`, ...args];
  const status = run("npx", all, { ...more, TMPDIR: folder });
  try {
    const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(readFileSync(report, "utf8"));
    passed += numPassedTests;
    failed += numFailedTests + numRuntimeErrorTestSuites;
    if (status !== 0 && numFailedTests + numRuntimeErrorTestSuites === 0) count(`${project}: as Jest says`, false);
  } catch {
    count(`${project}: a report`, false);
  }
  const left = readdirSync(folder).filter((name) => name.startsWith("hogar-"));
  count(`${project}: nothing left behind${left.length ? `, but ${left.join(", ")}` : ""}`, left.length === 0);
  rmSync(folder, { recursive: true, force: true });
}
