import { getHogar } from "@/server/hogar";
import { readAs } from "@/server/read";
import { readBusiness } from "@/store/business";
import { Quote } from "./quote";

export const metadata = { title: "Your quote", robots: { index: false, follow: false } };

export default async function QuotePage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const hogar = getHogar();
  const result = readAs("quote", { token }, { kind: "visitor" });
  if (!result.ok)
    return (
      <main style={{ padding: 32, maxWidth: 480, margin: "0 auto", fontSize: 17 }}>
        This quote does not stand any more. Call us on {readBusiness(hogar.store)?.phone}.
      </main>
    );
  return <Quote view={result.value} token={token} />;
}
