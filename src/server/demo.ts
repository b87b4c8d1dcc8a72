import { notFound } from "next/navigation";
import { getHogar } from "./hogar";

/** The stand-ins, in the demo. Elsewhere they and their pages do not exist. */
export function standins() {
  const { standins } = getHogar();
  return standins ?? notFound();
}
