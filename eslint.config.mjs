import boundaries from "eslint-plugin-boundaries";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

/** Which layer may import which: one direction, from the screens down to the core. */
const mayImport = {
  core: ["core"],
  schemas: ["core", "schemas"],
  gateways: ["core", "gateways"],
  store: ["core", "store"],
  operations: ["core", "schemas", "store", "gateways", "operations"],
  views: ["core", "schemas", "store", "gateways", "operations", "views"],
  worker: ["core", "store", "gateways", "operations", "worker"],
  ui: ["core", "schemas", "ui", "api"],
  api: ["core", "schemas", "operations", "views"],
  app: ["core", "schemas", "store", "gateways", "operations", "views", "worker", "ui", "api", "app"],
};

const layer = (type) => ({ element: { type } });

export default tseslint.config(
  { ignores: ["node_modules/", ".next/", "data/", "next-env.d.ts"] },
  ...tseslint.configs.recommended,
  {
    files: ["src/**/*.{ts,tsx}"],
    ignores: ["src/**/*.test.ts"],
    plugins: { boundaries },
    settings: {
      "import/resolver": { typescript: true },
      "boundaries/elements": Object.keys(mayImport).map((type) => ({ type, pattern: `src/${type}` })),
    },
    rules: {
      "boundaries/dependencies": [
        "error",
        {
          default: "disallow",
          policies: Object.entries(mayImport).map(([from, allowed]) => ({
            from: layer(from),
            allow: allowed.map((to) => ({ to: layer(to) })),
          })),
        },
      ],
    },
  },
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
    files: ["**/*.{ts,tsx}"],
    plugins: { "react-hooks": reactHooks },
    rules: { "react-hooks/rules-of-hooks": "error", "react-hooks/exhaustive-deps": "warn" },
  },
);
