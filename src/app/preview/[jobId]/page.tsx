import { MyVisit } from "@/app/my/[token]/my-visit";
import { read } from "@/server/read";
import { ReadOnly } from "@/ui/read-only";

export const metadata = { title: "As the customer sees it", robots: { index: false, follow: false } };

/** A customer's page, as somebody of the office reads it: without their link, and without acting for them. */
export default async function PreviewPage({ params }: { params: Promise<{ jobId: string }> }) {
  const { jobId } = await params;
  const view = await read("customers-page", { jobId: Number(jobId) }, `/preview/${jobId}`);
  return (
    <ReadOnly words="This is the page as your customer sees it. It can be read here, and not used.">
      <MyVisit view={view} token="" justBooked={false} />
    </ReadOnly>
  );
}
