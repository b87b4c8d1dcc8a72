import { StopPage } from "./stop-page";

export const metadata = { title: "Messages from us", robots: { index: false, follow: false } };

export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  return <StopPage token={(await params).token} />;
}
