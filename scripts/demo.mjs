import { spawn } from "node:child_process";
import { existsSync } from "node:fs";
import path from "node:path";
import { build, fail, install, root, run } from "./prepare.mjs";

/** `npm run demo`: from a machine with only Node to a running demo. `-- --fresh` starts over; PORT and HOGAR_DATA are respected. */
const args = process.argv.slice(2);
const port = process.env.PORT ?? "3000";
const data = path.resolve(root, process.env.HOGAR_DATA ?? "data");

await install();
await build();
// The code that makes a world takes longer to load than to find that there is one.
const isThere = existsSync(path.join(data, "hogar.sqlite")) && !args.includes("--fresh");
if (
  !isThere &&
  (await run("npx", ["--no-install", "tsx", "demo/make.ts", ...args], { env: { HOGAR_DATA: data } })) !== 0
)
  fail("The demo world could not be made.");

const server = spawn(process.execPath, [path.join(root, "bin/hogar.mjs"), "serve"], {
  cwd: root,
  stdio: ["ignore", "pipe", "inherit"],
  env: { ...process.env, HOGAR_DATA: data, PORT: port, NEXT_TELEMETRY_DISABLED: "1" },
});
server.stdout.on("data", (text) => {
  if (!String(text).includes("Ready on")) return;
  const at = `http://localhost:${port}`;
  console.log(`
  Marrowick Hearth & Flue is open.

  Front door     ${at}/book
  Office         ${at}/signin
  On the phone   ${at}/field
  Mail sent      ${at}/standins/mail
  Texts sent     ${at}/standins/text

  Sign in as     odile@marrowick.example  owner
                 tomas@marrowick.example  dispatcher
                 ines@marrowick.example   bookkeeper
                 bram@marrowick.example   technician
  Password       open the door

  Stop with Ctrl+C.`);
});
server.on("exit", (code) => process.exit(code ?? 0));
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill("SIGTERM"));
