import { existsSync, readFileSync } from "node:fs";
import { createRequire } from "node:module";
import path from "node:path";

/**
 * What a current browser loads of scripts when it opens a page, compressed: the files that Next's own manifests name
 * for the page and its layouts. What comes later, when it is needed, is not among them.
 */
const built = path.resolve(".next");
const require = createRequire(import.meta.url);

function scriptsOf(route) {
  const manifest = path.join(built, "server/app", `${route}_client-reference-manifest.js`);
  if (!existsSync(manifest)) throw new Error(`${route} is not built. Run npm run build first.`);
  require(manifest);
  const entries = Object.entries(globalThis.__RSC_MANIFEST).find(([name]) => name === `/${route}`)[1].entryJSFiles;
  const own = Object.entries(entries).filter(([name]) => !name.includes("node_modules"));
  const { rootMainFiles } = JSON.parse(readFileSync(path.join(built, "build-manifest.json"), "utf8"));
  return [...new Set([...rootMainFiles, ...own.flatMap(([, files]) => files)])].map((file) => path.join(built, file));
}

const page = (name, route, limit) => ({ name, path: scriptsOf(route), limit, gzip: true });

export default [
  page("front door", "book/page", "220 kB"),
  page("today", "(office)/today/page", "350 kB"),
  page("board", "(office)/board/page", "350 kB"),
  page("incoming", "(office)/incoming/page", "350 kB"),
  page("customers", "(office)/customers/page", "350 kB"),
  page("repeats", "(office)/repeats/page", "350 kB"),
  page("money", "(office)/money/page", "350 kB"),
  page("set-up", "(office)/setup/[part]/page", "350 kB"),
  page("field", "field/page", "350 kB"),
];
