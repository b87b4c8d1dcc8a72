import { getHogar } from "@/server/hogar";
import { readAs } from "@/server/read";
import { readBusiness } from "@/store/business";
import { OfferPage } from "./offer-page";

export const metadata = { title: "An offer for you", robots: { index: false, follow: false } };

export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const result = readAs("offer", { token }, { kind: "visitor" });
  if (!result.ok)
    return (
      <main style={{ padding: 32, maxWidth: 480, margin: "0 auto", fontSize: 17 }}>
        This offer is over. You are welcome to <a href="/book">book</a> as always, or to call us on{" "}
        {readBusiness(getHogar().store)?.phone}.
      </main>
    );
  return <OfferPage view={result.value} token={token} />;
}
