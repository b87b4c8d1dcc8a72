import { build, chromium, install, run } from "./prepare.mjs";

/** `npm run screenshots`: one current picture of each main view, from a fresh demo world. */
await install();
await build();
process.exit(
  await run("npx", ["--no-install", "tsx", "e2e/support/screenshots.ts"], { env: { CHROMIUM: await chromium() } }),
);
