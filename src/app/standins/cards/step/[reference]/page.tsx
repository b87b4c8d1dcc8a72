import { ownPath } from "@/core/people/own-path";
import { moneyWords } from "@/core/money/amounts";
import { standins } from "@/server/demo";
import { notFound } from "next/navigation";
import { Step } from "./step";

export const metadata = { title: "Your bank asks" };

export default async function StepPage({
  params,
  searchParams,
}: {
  params: Promise<{ reference: string }>;
  searchParams: Promise<{ back?: string }>;
}) {
  const { reference } = await params;
  const { back } = await searchParams;
  const charge = standins().cards.chargeByReference(reference);
  if (!charge) notFound();
  return (
    <Step
      reference={reference}
      amount={moneyWords(charge.amount_minor, charge.currency)}
      description={charge.description}
      open={charge.state === "second step"}
      back={ownPath(back) ?? "/"}
    />
  );
}
