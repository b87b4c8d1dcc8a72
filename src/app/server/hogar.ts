import path from "node:path";
import { openHogar, type Hogar } from "@/operations/hogar";

/** The one application of this process. Kept globally, since the server loads its modules more than once. */
const shared = globalThis as { hogar?: Hogar };

export const getHogar = (): Hogar =>
  (shared.hogar ??= openHogar({ folder: path.resolve(process.env.HOGAR_DATA ?? "data") }));
