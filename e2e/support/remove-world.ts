import { rmSync } from "node:fs";

/** After all files. */
export default function removeWorld(): void {
  rmSync(process.env.HOGAR_E2E_WORLD!, { recursive: true, force: true });
}
