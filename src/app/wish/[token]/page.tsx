import { readAs } from "@/server/read";
import { TakeWish } from "./take-wish";

export const metadata = { title: "Free now", robots: { index: false, follow: false } };

export default async function WishPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const result = readAs("wish", { token }, { kind: "visitor" });
  if (!result.ok)
    return (
      <main style={{ padding: 32, maxWidth: 480, margin: "0 auto", fontSize: 17 }}>{result.problem.sentence}</main>
    );
  return <TakeWish view={result.value} token={token} />;
}
