import { readFileSync } from "node:fs";
import boundaries from "eslint-plugin-boundaries";
import reactHooks from "eslint-plugin-react-hooks";
import regexp from "eslint-plugin-regexp";
import tseslint from "typescript-eslint";

/** The modules, lowest first, as src/registry/modules.ts names them: one imports only those before it. Say there why when you change the order. */
const modules = [
  ...readFileSync(new URL("src/registry/modules.ts", import.meta.url), "utf8").matchAll(/from "@\/modules\/([\w-]+)"/g),
].map(([, name]) => name);

/** Which layer may import which: one direction, from the screens down to the core. */
const mayImport = {
  core: ["core"],
  store: ["core", "store"],
  gateways: ["core", "gateways"],
  kernel: ["core", "store", "gateways", "kernel"],
  registry: ["core", "store", "gateways", "kernel", "module", "asked", "front", "registry"],
  worker: ["core", "store", "gateways", "kernel", "module", "asked", "front", "registry", "worker"],
  api: ["core", "kernel", "registry", "api"],
  ui: ["core", "api", "ui"],
  server: ["core", "store", "gateways", "kernel", "registry", "server", "api"],
  app: ["core", "store", "gateways", "kernel", "registry", "server", "worker", "api", "ui", "app"],
};

const element = (type, captured) => ({ element: { type, ...(captured && { captured }) } });
const elements = [
  // What a module shows to those who loop over all of them; it calls its own operations.
  {
    type: "front",
    mode: "file",
    pattern: "src/modules/*/(index|jobs|effects).ts",
    capture: ["subject"],
  },
  // What can be asked for, operations and views, is called by name or by those who may; helpers are for whoever comes later.
  { type: "asked", pattern: "src/modules/*/(operations|views)", capture: ["subject"] },
  { type: "module", pattern: "src/modules/*", capture: ["subject"] },
  ...Object.keys(mayImport).map((type) => ({ type, pattern: `src/${type}` })),
];
/** What the files of one folder may import. Each folder has its own rule, since all of them together are looked through for every import. */
const layer = (files, from, allow) => ({
  files,
  ignores: ["src/**/*.test.ts"],
  plugins: { boundaries },
  settings: { "import/resolver": { typescript: true }, "boundaries/elements": elements },
  rules: {
    "boundaries/dependencies": [
      "error",
      {
        default: "disallow",
        policies: from.map((one) => ({ from: one, allow: allow.map((to) => ({ to })) })),
      },
    ],
  },
});
const layers = [
  ...Object.entries(mayImport).map(([from, allowed]) =>
    layer([`src/${from}/**/*.{ts,tsx}`], [element(from)], [element(allowed)]),
  ),
  ...modules.flatMap((subject, i) => {
    const below = [
      element(["core", "store", "gateways", "kernel"]),
      element("module", { subject: modules.slice(0, i + 1) }),
    ];
    const fronts = [`src/modules/${subject}/{index,jobs,effects}.ts`];
    return [
      {
        ...layer(
          [`src/modules/${subject}/**/*.{ts,tsx}`],
          [element("module", { subject }), element("asked", { subject })],
          below,
        ),
        ignores: ["src/**/*.test.ts", ...fronts],
      },
      layer(fronts, [element("front", { subject })], [...below, element(["asked", "front"], { subject })]),
    ];
  }),
];

export default tseslint.config(
  { ignores: ["node_modules/", ".next/", "data/", "coverage/", "next-env.d.ts"] },
  ...tseslint.configs.recommended,
  ...layers,
  {
    files: ["src/core/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-globals": [
        "error",
        { name: "Date", message: "core has no clock: take `now` as an argument." },
        { name: "process", message: "core does no I/O." },
      ],
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            { group: ["node:*", "next", "next/*", "react", "@mui/*", "better-sqlite3"], message: "core is pure." },
          ],
        },
      ],
    },
  },
  {
    // Files from outside are read where they came in: in the browser of who brings them, in the command, or in a process of its own.
    files: ["src/{server,modules,kernel,registry,worker,store}/**/*.{ts,tsx}"],
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          paths: [
            ...["papaparse", "ical.js", "fast-xml-parser", "postal-mime", "mailparser", "html-to-text"],
            ...["@/core/imports/read-file", "@/core/imports/camt", "@/gateways/mail-reader"],
            { name: "@/core/place/zone-files", importNames: ["readZones"] },
            { name: "@/core/time/holidays", importNames: ["readHolidays"] },
          ].map((one) => ({
            ...(typeof one === "string" ? { name: one } : one),
            message: "The thread that answers reads no file from outside: see src/gateways/outside-process.ts.",
          })),
        },
      ],
    },
  },
  {
    // Whatever a regular expression may see from outside, it takes no longer than in proportion to its length.
    files: ["src/**/*.{ts,tsx}", "cli/**/*.ts"],
    ignores: ["**/*.test.ts"],
    plugins: { regexp },
    rules: {
      "regexp/no-super-linear-backtracking": ["error", { report: "potential" }],
      "regexp/no-super-linear-move": ["error", { ignoreSticky: false, report: "potential" }],
    },
  },
  {
    files: ["**/*.{ts,tsx}"],
    plugins: { "react-hooks": reactHooks },
    rules: { "react-hooks/rules-of-hooks": "error", "react-hooks/exhaustive-deps": "warn", "no-sequences": "error" },
  },
);
