import { Bring } from "@/server/live";
import { latest } from "../data";
import { CustomerPage } from "../customer-page";

export const metadata = { title: "Customer" };

export default async function OneCustomerPage({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  return (
    <Bring back={`/customers/${id}`} views={[["customer", { id, ...latest }]]}>
      <CustomerPage id={id} />
    </Bring>
  );
}
