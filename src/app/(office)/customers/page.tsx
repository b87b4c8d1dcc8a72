import { everybody } from "@/core/customers/filter";
import { Bring } from "@/server/live";
import { firstPage } from "@/ui/first-page";
import { redirect } from "next/navigation";
import { Customers } from "./customers";

export const metadata = { title: "Customers" };

export default async function CustomersPage({
  searchParams,
}: {
  searchParams: Promise<{ id?: string; tag?: string }>;
}) {
  const { id, tag } = await searchParams;
  if (id && /^\d+$/.test(id)) redirect(`/customers/${id}`);
  const begin = { ...everybody, tag: tag?.slice(0, 40) ?? null };
  return (
    <Bring back="/customers" views={[["customers", { ...firstPage<"customers">("name"), filter: begin }]]}>
      <Customers begin={begin} key={tag ?? ""} />
    </Bring>
  );
}
