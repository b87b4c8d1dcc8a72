import { Bring } from "@/server/live";
import { firstPage } from "@/ui/first-page";
import { moneyListOf } from "./data";
import { Money } from "./money";

export const metadata = { title: "Money" };

export default async function MoneyPage({
  searchParams,
}: {
  searchParams: Promise<{ id?: string; list?: string; show?: string }>;
}) {
  const { id, ...asked } = await searchParams;
  const shown = moneyListOf(asked);
  return (
    <Bring
      back="/money"
      views={[
        ["money", {}],
        shown.list === "invoices"
          ? ["invoices", { ...firstPage<"invoices">("number", true), show: shown.show }]
          : ["payments", { ...firstPage<"payments">("at", true), show: shown.show }],
      ]}
    >
      <Money open={id ? Number(id) : null} shown={shown} />
    </Bring>
  );
}
