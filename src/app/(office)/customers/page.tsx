import { Bring } from "@/server/live";
import { firstPage } from "@/ui/first-page";
import { Customers } from "./customers";

export const metadata = { title: "Customers" };

export default async function CustomersPage({ searchParams }: { searchParams: Promise<{ id?: string }> }) {
  const { id } = await searchParams;
  return (
    <Bring back="/customers" views={[["customers", firstPage<"customers">("name")]]}>
      <Customers open={id ? Number(id) : null} />
    </Bring>
  );
}
