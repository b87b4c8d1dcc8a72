import { testCards } from "@/gateways/cards-standin";
import { standins } from "@/server/demo";
import { CardFrame } from "./card-frame";

export const metadata = { title: "Card" };

export default function CardFramePage() {
  standins();
  return <CardFrame cards={testCards.map(({ number, says }) => ({ number, says }))} />;
}
