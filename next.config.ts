import type { NextConfig } from "next";

const config: NextConfig = {
  serverExternalPackages: ["better-sqlite3", "@node-rs/argon2", "nodemailer"],
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
};

export default config;
