import { invoicesShown, type InvoicesShown } from "@/core/money/applying";
import { Bring } from "@/server/live";
import { firstPage } from "@/ui/first-page";
import { Money } from "./money";

export const metadata = { title: "Money" };

const isShown = (text: string | undefined): text is InvoicesShown => invoicesShown.includes(text as InvoicesShown);

export default async function MoneyPage({ searchParams }: { searchParams: Promise<{ id?: string; show?: string }> }) {
  const { id, show } = await searchParams;
  const shown = isShown(show) ? show : "all";
  return (
    <Bring
      back="/money"
      views={[
        ["money", {}],
        ["invoices", { ...firstPage<"invoices">("number", true), show: shown }],
      ]}
    >
      <Money open={id ? Number(id) : null} show={shown} />
    </Bring>
  );
}
