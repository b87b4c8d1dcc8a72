import { readBusiness } from "@/store/business";
import { notFound } from "next/navigation";
import { getHogar } from "./hogar";

/** The stand-ins' own pages exist in the demo only: elsewhere they would show customers' mail to anybody. */
export function mustBeDemo(): void {
  if (readBusiness(getHogar().store)?.demo_offset_ms == null) notFound();
}
