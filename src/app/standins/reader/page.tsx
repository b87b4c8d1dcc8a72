import { moneyWords } from "@/core/money/amounts";
import { testCards } from "@/gateways/cards-standin";
import { standins } from "@/server/demo";
import { Reader } from "./reader";

export const metadata = { title: "Card reader" };

/** The reader stand-in: what waits for a card, and cards to hold to it. */
export default function ReaderPage() {
  return (
    <Reader
      waiting={standins()
        .reader.waiting()
        .map(({ key, amount_minor, currency }) => ({ key, amount: moneyWords(amount_minor, currency) }))}
      cards={testCards.map(({ number, says }) => ({ number, says }))}
    />
  );
}
