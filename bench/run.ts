export {};
/** `npm run bench [-- NAME]`: every benchmark, or the one named. */
const benches: Record<string, () => Promise<void>> = {
  collect: () => import("./collect").then((b) => b.run()),
  customers: () => import("./customers").then((b) => b.run()),
  board: () => import("./board").then((b) => b.run()),
  check: () => import("./check").then((b) => b.run()),
  "front-door": () => import("./front-door").then((b) => b.run()),
  messages: () => import("./messages").then((b) => b.run()),
  repeats: () => import("./repeats").then((b) => b.run()),
  start: () => import("./start").then((b) => b.run()),
  screens: () => import("./screens").then((b) => b.run()),
  windows: () => import("./windows").then((b) => b.run()),
};
const [name] = process.argv.slice(2) as (string | undefined)[];
if (name && !benches[name]) {
  console.error(`There is no benchmark “${name}”. There are: ${Object.keys(benches).join(", ")}.`);
  process.exit(2);
}
for (const [each, run] of Object.entries(benches))
  if (!name || name === each) {
    console.log(`\n${each}`);
    await run();
  }
