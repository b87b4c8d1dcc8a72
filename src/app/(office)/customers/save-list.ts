import { ask, type ViewInput } from "@/api/client";
import { type CustomerFilter, everybody } from "@/core/customers/filter";
import type { CustomerCard } from "@/core/customers/cards";
import { download } from "@/ui/download";

type Asked = Omit<ViewInput<"customer-cards">, "page" | "size">;
const pageSize = 200;

/** What is on the screen as a file, whole: read page by page. Answers the sentence of what went wrong, or null. */
export async function saveList(
  { search, filter }: { search: string; filter: CustomerFilter },
  kind: "csv" | "vcf",
  progress: { onShare: (percent: number) => void; isStopped: () => boolean },
): Promise<string | null> {
  const asked: Asked = { sort: "name", descending: false, search, filter };
  const cards: CustomerCard[] = [];
  for (let page = 0, left = true; left; page++) {
    const result = await ask("customer-cards", { ...asked, page, size: pageSize });
    if (progress.isStopped()) return null;
    if (!result.ok) return result.problem.sentence;
    cards.push(...result.value.rows);
    left = cards.length < result.value.count && result.value.rows.length > 0;
    progress.onShare(Math.round((cards.length * 100) / Math.max(1, result.value.count)));
  }
  if (kind === "csv") {
    const { customersCsv } = await import("@/core/customers/cards");
    download("customers.csv", "text/csv", customersCsv(cards));
  } else await saveCards("customers", cards);
  return null;
}

/** One customer as a vCard. */
export async function saveVCard({ id, name }: { id: number; name: string }): Promise<void> {
  const result = await ask("customer-cards", {
    page: 0,
    size: 1,
    sort: "name",
    descending: false,
    search: "",
    filter: everybody,
    id,
  });
  if (result.ok) await saveCards(name, result.value.rows);
}

async function saveCards(name: string, cards: readonly CustomerCard[]): Promise<void> {
  const { vCardsOf } = await import("@/core/customers/vcards");
  download(`${name.replace(/[^\p{L}\d]+/gu, "-").toLowerCase()}.vcf`, "text/vcard", vCardsOf(cards));
}
