import { getHogar } from "@/server/hogar";
import { readBusiness } from "@/store/business";
import { Providers } from "@/ui/providers";
import "@fontsource-variable/atkinson-hyperlegible-next/index.css";
import "@fontsource-variable/bricolage-grotesque/index.css";
import { AppRouterCacheProvider } from "@mui/material-nextjs/v16-appRouter";
import type { Metadata, Viewport } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import "./globals.css";

export const metadata: Metadata = {
  title: { default: "Hogar", template: "%s · Hogar" },
  description: "Promises that can be kept: booking, planning and payment for home service.",
};
export const viewport: Viewport = { width: "device-width", initialScale: 1, themeColor: "#FBFAF6" };
export const dynamic = "force-dynamic";

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get("x-nonce") ?? undefined;
  const business = readBusiness(getHogar().store);
  const habits = {
    weekStart: business?.week_start ?? 0,
    clockHours: business?.clock_hours ?? 24,
    currency: business?.currency ?? "EUR",
  };
  return (
    <html lang="en">
      <body>
        <AppRouterCacheProvider options={{ enableCssLayer: true, nonce }}>
          <Providers habits={habits}>{children}</Providers>
        </AppRouterCacheProvider>
      </body>
    </html>
  );
}
