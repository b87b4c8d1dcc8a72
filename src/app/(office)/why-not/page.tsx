import { isDate } from "@/core/time/dates";
import { read } from "@/server/read";
import { Top } from "../top";
import { WhyNot } from "./why-not";

export const metadata = { title: "Why not?" };

export default async function WhyNotPage({
  searchParams,
}: {
  searchParams: Promise<{ address?: string; service?: string; date?: string; customer?: string }>;
}) {
  const { address, service, date, customer } = await searchParams;
  const choices = await read(
    "why-not-choices",
    { addressId: address ?? null, customerId: Number(customer) || null },
    "/why-not",
  );
  return (
    <>
      <Top title="Why not?" sum="Who can come when, what stands against it, and booking on the phone" />
      <WhyNot choices={choices} serviceId={Number(service) || null} date={date && isDate(date) ? date : null} />
    </>
  );
}
