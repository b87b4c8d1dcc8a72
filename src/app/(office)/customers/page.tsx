import { customers } from "@/views/customers";
import { read } from "@/app/server/read";
import { Top } from "../top";
import { Customers } from "./customers";

export const metadata = { title: "Customers" };

export default async function CustomersPage({ searchParams }: { searchParams: Promise<{ id?: string }> }) {
  const { id } = await searchParams;
  const view = await read(customers, {}, "/customers");
  const sites = view.rows.reduce((n, r) => n + r.sites, 0);
  return (
    <>
      <Top title="Customers" sum={`${view.rows.length} customers, ${sites} sites`} />
      <Customers rows={view.rows} currency={view.currency} open={id ? Number(id) : null} />
    </>
  );
}
