import { getHogar } from "@/server/hogar";
import { readAs } from "@/server/read";
import { readBusiness } from "@/store/business";
import { TimeAgain } from "./time-again";

export const metadata = { title: "Is it time again?", robots: { index: false, follow: false } };

export default async function AgainPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const result = readAs("ask", { token }, { kind: "visitor" });
  if (!result.ok)
    return (
      <main style={{ padding: 32, maxWidth: 480, margin: "0 auto", fontSize: 17 }}>
        This question does not stand any more. Call us on {readBusiness(getHogar().store)?.phone}.
      </main>
    );
  return <TimeAgain view={result.value} token={token} />;
}
