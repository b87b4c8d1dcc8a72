import { standins } from "@/server/demo";
import { Phone } from "./phone";

export const metadata = { title: "Texts" };

/** The text stand-in: a plain phone, on which customers' texts can be read and answered. */
export default function TextPage() {
  return <Phone conversations={standins().text.conversations()} way={standins().text.way()} />;
}
