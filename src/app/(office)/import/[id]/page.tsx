import { Bring } from "@/server/live";
import { ImportScreen } from "../import-screen";

export const metadata = { title: "Import" };

export default async function OneImportPage({ params }: { params: Promise<{ id: string }> }) {
  const importId = Number((await params).id);
  return (
    <Bring back={`/import/${importId}`} views={[["import", { importId }]]}>
      <ImportScreen importId={importId} />
    </Bring>
  );
}
