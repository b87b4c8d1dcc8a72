import { type Hogar } from "@/kernel/hogar";
import { openHogar } from "@/registry/open-hogar";
import path from "node:path";

/** The one application of this process. Kept globally, since the server loads its modules more than once. */
export const shared = globalThis as { hogar?: Hogar; begin?: () => void; end?: () => Promise<void> };

export const dataFolder = (): string => path.resolve(/* turbopackIgnore: true */ process.env.HOGAR_DATA ?? "data");

export const getHogar = (): Hogar => (shared.hogar ??= openHogar({ folder: dataFolder() }));
