import "@fontsource-variable/atkinson-hyperlegible-next/index.css";
import "@fontsource-variable/bricolage-grotesque/index.css";
import "./globals.css";
import { AppRouterCacheProvider } from "@mui/material-nextjs/v16-appRouter";
import type { Metadata, Viewport } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import { Providers } from "@/ui/providers";

export const metadata: Metadata = { title: { default: "Hogar", template: "%s · Hogar" }, description: "Promises that can be kept: booking, planning and payment for home service." };
export const viewport: Viewport = { width: "device-width", initialScale: 1, themeColor: "#FBFAF6" };
export const dynamic = "force-dynamic";

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get("x-nonce") ?? undefined;
  return (
    <html lang="en">
      <body>
        <AppRouterCacheProvider options={{ enableCssLayer: true, nonce }}>
          <Providers>{children}</Providers>
        </AppRouterCacheProvider>
      </body>
    </html>
  );
}
