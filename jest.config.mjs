import { rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";

// Databases that tests begin with are made once in a run and opened from there (demo/kept-bytes.ts).
const databases = path.join(tmpdir(), `hogar-databases-${process.pid}`);
process.env.HOGAR_TEST_DATABASES = databases;
process.on("exit", () => rmSync(databases, { recursive: true, force: true }));

const esmPackages = [
  "temporal-polyfill",
  "temporal-utils",
  "temporal-spec",
  "rrule-temporal",
  "nanoid",
  "iron-session",
  "uncrypto",
  "tinyqueue",
  "postal-mime",
  "@sinclair/typebox",
  "@js-temporal/polyfill",
  "ical.js",
  "@turf/[a-z-]+",
  "point-in-polygon-hao",
  "robust-predicates",
];

/** Unit tests live beside what they test (src, demo); e2e/ drives the real interface in Chromium. */
const shared = {
  testEnvironment: "node",
  transform: {
    "^.+\\.(t|j)sx?$": [
      "@swc/jest",
      {
        jsc: {
          parser: { syntax: "typescript", tsx: true },
          target: "es2022",
          transform: { react: { runtime: "automatic" } },
        },
        module: { type: "commonjs" },
      },
    ],
  },
  transformIgnorePatterns: [`/node_modules/(?!(${esmPackages.join("|")})/)`],
  moduleNameMapper: { "^@/(.*)$": "<rootDir>/src/$1", "^@demo/(.*)$": "<rootDir>/demo/$1" },
  modulePathIgnorePatterns: ["<rootDir>/.next/"],
};

export default {
  // core is read like a textbook, and trusted like one.
  collectCoverageFrom: ["src/core/**/*.ts", "!**/*.test.ts"],
  coverageReporters: ["text-summary", "json-summary"],
  coverageThreshold: { global: { lines: 95, branches: 90 } },
  // Generous: a test must fail for what it checks, not for a busy machine.
  testTimeout: 600_000,
  projects: [
    {
      ...shared,
      displayName: "unit",
      testMatch: ["<rootDir>/src/**/*.test.ts", "<rootDir>/demo/**/*.test.ts", "<rootDir>/cli/**/*.test.ts"],
    },
    {
      ...shared,
      displayName: "e2e",
      testMatch: ["<rootDir>/e2e/**/*.test.ts"],
      globalSetup: "<rootDir>/e2e/support/make-world.ts",
      globalTeardown: "<rootDir>/e2e/support/remove-world.ts",
    },
  ],
};
