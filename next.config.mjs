// Not in TypeScript: to read that, the server would load a compiler of 100 MB.
/** @type {import("next").NextConfig} */
const config = {
  serverExternalPackages: ["better-sqlite3", "@node-rs/argon2", "nodemailer", "pdfmake"],
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
  // Our pictures are small already: nobody has the server decode them again.
  images: { unoptimized: true },
  // Pages are loaded when they are first asked for: a small server keeps what it is asked for, and no more.
  experimental: { preloadEntriesOnStart: false },
  // `npm run types` checks all of the project; the build need not do it once more.
  typescript: { ignoreBuildErrors: true },
  headers: async () => [
    {
      source: "/api/:path*",
      headers: [
        { key: "content-security-policy", value: "default-src 'none'; frame-ancestors 'none'" },
        { key: "x-content-type-options", value: "nosniff" },
        { key: "referrer-policy", value: "no-referrer" },
        { key: "x-frame-options", value: "DENY" },
      ],
    },
  ],
};

export default config;
