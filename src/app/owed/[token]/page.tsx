import { getHogar } from "@/server/hogar";
import { readAs } from "@/server/read";
import { readBusiness } from "@/store/business";
import { OwedPage } from "./owed-page";

export const metadata = { title: "Your account", robots: { index: false, follow: false } };

export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const result = readAs("my-account", { token }, { kind: "visitor" });
  if (!result.ok)
    return (
      <main style={{ padding: 32, maxWidth: 480, margin: "0 auto", fontSize: 17 }}>
        This link is no longer valid. Call us on {readBusiness(getHogar().store)?.phone}.
      </main>
    );
  return <OwedPage view={result.value} token={token} />;
}
