import { testCards } from "@/gateways/cards-standin";
import { CardFrame } from "./card-frame";

export const metadata = { title: "Card" };

export default function CardFramePage() {
  return <CardFrame cards={testCards.map(({ number, says }) => ({ number, says }))} />;
}
