import { mustBeDemo } from "@/server/demo";
import { getHogar } from "@/server/hogar";
import { Phone } from "./phone";

export const metadata = { title: "Texts" };

/** The text stand-in: a plain phone, on which customers' texts can be read and answered. */
export default function TextPage() {
  mustBeDemo();
  return <Phone conversations={getHogar().standins.text.conversations()} />;
}
