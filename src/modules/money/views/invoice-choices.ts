import { Nothing } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";

/** What an invoice made by hand is made from: the catalogue, the rates of tax, the words at its end. */
export const invoiceChoices = defineView({
  name: "invoice-choices",
  access: "money.change",
  input: Nothing,
  read: ({ sql, business }) => ({
    pricesIncludeTax: business.prices_include_tax === 1,
    after: business.invoice_text,
    taxRates: sql<{ name: string; rateBp: number }>(
      "SELECT name, rate_bp AS rateBp FROM tax_rates ORDER BY position",
    ).all(),
    catalogue: sql<{ name: string; priceMinor: number; taxBp: number }>(
      `SELECT name, price_minor AS priceMinor, tax_bp AS taxBp FROM services WHERE active = 1
        UNION ALL SELECT name, price_minor, tax_bp FROM extras WHERE active = 1 ORDER BY name`,
    ).all(),
  }),
});
