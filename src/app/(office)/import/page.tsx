import type { ImportKind } from "@/core/imports/fields";
import { Bring } from "@/server/live";
import { kindWords } from "./data";
import { NewImport } from "./new-import";

export const metadata = { title: "Import" };

export default async function ImportPage({ searchParams }: { searchParams: Promise<{ kind?: string }> }) {
  const { kind = "" } = await searchParams;
  const chosen = Object.hasOwn(kindWords, kind) ? (kind as ImportKind) : null;
  return (
    <Bring back="/import" views={[["imports", {}]]}>
      <NewImport begin={chosen} />
    </Bring>
  );
}
