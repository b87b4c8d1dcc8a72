import { readFileSync, rmSync } from "node:fs";
import path from "node:path";
import { tmpdir } from "node:os";
import { build, chromium, install, run } from "./prepare.mjs";

/** `npm test`: types, lint, unit tests, build, and the real interface. The last line counts. */
install();
let passed = 0;
let failed = 0;

step("types", ["tsc", "--noEmit", "-p", "."]);
step("lint", ["eslint", "--max-warnings", "0", "."]);
jest("unit");
build();
jest("e2e", { CHROMIUM: chromium() });

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);

function step(name, args) {
  const ok = run("npx", ["--no-install", ...args]) === 0;
  console.log(`${ok ? "ok" : "not ok"}: ${name}`);
  if (ok) passed++;
  else failed++;
}

function jest(project, more) {
  const report = path.join(tmpdir(), `hogar-${project}-${process.pid}.json`);
  const status = run(
    "npx",
    [
      "--no-install",
      "jest",
      "--selectProjects",
      project,
      "--json",
      `--outputFile=${report}`,
      ...(project === "e2e" ? ["--runInBand", "--forceExit"] : []),
    ],
    more,
  );
  try {
    const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(readFileSync(report, "utf8"));
    passed += numPassedTests;
    failed += numFailedTests + numRuntimeErrorTestSuites;
    if (status !== 0 && numFailedTests + numRuntimeErrorTestSuites === 0) failed++;
  } catch {
    failed++;
  }
  rmSync(report, { force: true });
}
