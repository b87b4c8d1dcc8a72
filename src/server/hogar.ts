import type { Hogar } from "@/kernel/hogar";
import { openHogar } from "@/registry/open-hogar";
import { dataFolder, shared } from "./shared";

export const getHogar = (): Hogar => (shared.hogar ??= openHogar({ folder: dataFolder() }));
