import type { Paper } from "@/core/money/papers";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { type ToldSeller, toldSellerColumn } from "@/store/columns";

/** An address as its lines are printed. */
export const linesOf = (address: string): string[] =>
  address
    .split(/\n|,\s*/)
    .map((line) => line.trim())
    .filter(Boolean);

type Seller = Pick<Paper, "seller" | "pricesIncludeTax">;

/** The business as it is told on papers today, as it is kept with them. */
const toldNow = ({ business: b }: ViewContext): ToldSeller => ({
  name: b.name,
  address: b.address,
  taxNumber: b.tax_number,
  registration: b.registration,
  bankAccount: b.bank_account,
  mail: b.mail,
  phone: b.phone,
  site: b.site,
  mark: b.mark,
  pricesIncludeTax: b.prices_include_tax,
});

const asSeller = ({ pricesIncludeTax, address, ...told }: ToldSeller): Seller => ({
  seller: { ...told, address: linesOf(address) },
  pricesIncludeTax: pricesIncludeTax === 1,
});

/** Who sells, by what stands in the set-up today. */
export const sellerToday = (context: ViewContext): Seller => asSeller(toldNow(context));

/** Who sold, as it stood on a paper when that was made. */
export function sellerThen(context: ViewContext, sellerId: number | null): Seller {
  const kept = context.sql<{ told: string }>("SELECT told FROM sellers WHERE id = ?").get(sellerId);
  return kept ? asSeller(toldSellerColumn.read(kept.told)) : sellerToday(context);
}

/** Keeps the business as it stands now for a paper that is made; the same as before is kept once. Answers its id. */
export function keepSeller(context: OperationContext): number {
  const told = toldSellerColumn.write(toldNow(context));
  context.sql("INSERT INTO sellers (told) VALUES (?) ON CONFLICT (told) DO NOTHING").run(told);
  return context.sql<{ id: number }>("SELECT id FROM sellers WHERE told = ?").get(told)!.id;
}
