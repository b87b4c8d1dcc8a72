import { money } from "@/views/money";
import { moneyWords } from "@/core/money/amounts";
import { read } from "@/app/server/read";
import { Top } from "../top";
import { Money } from "./money";

export const metadata = { title: "Money" };

export default async function MoneyPage({ searchParams }: { searchParams: Promise<{ id?: string; show?: string }> }) {
  const { id, show } = await searchParams;
  const view = await read(money, {}, "/money");
  return (
    <>
      <Top
        title="Money"
        sum={`${moneyWords(view.totals.open, view.currency)} open, of which ${moneyWords(view.totals.overdue, view.currency)} overdue`}
      />
      <Money view={view} open={id ? Number(id) : null} show={show ?? "all"} />
    </>
  );
}
