import { Bring } from "@/server/live";
import { firstPage } from "@/ui/first-page";
import { moneyPartOf } from "./data";
import { Money } from "./money";

export const metadata = { title: "Money" };

export default async function MoneyPage({
  searchParams,
}: {
  searchParams: Promise<{ id?: string; list?: string; show?: string; age?: string }>;
}) {
  const { id, ...asked } = await searchParams;
  const part = moneyPartOf(asked);
  return (
    <Bring
      back="/money"
      views={[
        ["money", {}],
        ...(part.list === "overview"
          ? ([["money-overview", {}]] as const)
          : part.list === "invoices"
            ? ([["invoices", { ...firstPage<"invoices">("number", true), show: part.show, age: part.age }]] as const)
            : part.list === "payments"
              ? ([["payments", { ...firstPage<"payments">("at", true), show: part.show }]] as const)
              : []),
      ]}
    >
      <Money open={id ? Number(id) : null} part={part} />
    </Bring>
  );
}
