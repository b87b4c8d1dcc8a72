import { getHogar } from "@/server/hogar";
import { readBusiness } from "@/store/business";

export const metadata = { title: "This link has ended", robots: { index: false, follow: false } };

/** What an ended link leads to: who to call instead. */
export default function EndedPage() {
  const business = readBusiness(getHogar().store);
  return (
    <main style={{ padding: 32, maxWidth: 480, margin: "0 auto", fontSize: 17 }}>
      This link has ended with the visit that it was about. Call us on {business?.phone}, or{" "}
      <a href="/book">book another time</a>.
    </main>
  );
}
