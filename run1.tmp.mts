import { shoot } from "./shot.tmp.mts";
await shoot([
  { url: "/setup/business", file: "s1", full: true },
  { url: "/setup/hours", file: "s2", full: true },
  { url: "/setup/technicians?id=1", file: "s3", full: true },
  { url: "/setup/zones", file: "s4", steps: async (p) => { await p.getByRole("region", { name: "Map of the zones" }).waitFor(); } },
  { url: "/setup/windows", file: "s5", steps: async (p) => { await p.getByText(/windows offered/).waitFor(); } },
  { url: "/setup/services?id=1", file: "s6", full: true },
]);
