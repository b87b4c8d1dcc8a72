import { moneyWords } from "@/core/money/amounts";
import { standins } from "@/server/demo";
import { Charges } from "./charges";

export const metadata = { title: "Charges" };

/** The card stand-in's charges, which a customer's bank may ask back. */
export default function ChargesPage() {
  const charges = standins()
    .cards.charges()
    .filter(({ state }) => state === "received")
    .slice(0, 40);
  return (
    <Charges
      charges={charges.map(({ reference, amount_minor, currency, description, last_digits }) => ({
        reference,
        words: `${moneyWords(amount_minor, currency)}, ${description}, card ending ${last_digits}`,
      }))}
    />
  );
}
