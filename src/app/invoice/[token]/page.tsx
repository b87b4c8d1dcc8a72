import { getHogar } from "@/server/hogar";
import { readAs } from "@/server/read";
import { readBusiness } from "@/store/business";
import { InvoicePage } from "./invoice-page";

export const metadata = { title: "Your invoice", robots: { index: false, follow: false } };

export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const result = readAs("my-invoice", { token }, { kind: "visitor" });
  const coming = readAs("invoice-coming", { token }, { kind: "visitor" });
  if (!result.ok || !coming.ok)
    return (
      <main style={{ padding: 32, maxWidth: 480, margin: "0 auto", fontSize: 17 }}>
        This link is no longer valid. Call us on {readBusiness(getHogar().store)?.phone}.
      </main>
    );
  return <InvoicePage view={result.value} coming={coming.value} token={token} />;
}
