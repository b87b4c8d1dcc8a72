import { getHogar } from "@/server/hogar";
import { readAs } from "@/server/read";
import { readBusiness } from "@/store/business";
import { ReviewPage } from "./review-page";

export const metadata = { title: "How was it?", robots: { index: false, follow: false } };

export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const result = readAs("review", { token }, { kind: "visitor" });
  if (!result.ok)
    return (
      <main style={{ padding: 32, maxWidth: 480, margin: "0 auto", fontSize: 17 }}>
        This link is not good any more. Call us on {readBusiness(getHogar().store)?.phone}.
      </main>
    );
  return <ReviewPage view={result.value} token={token} />;
}
