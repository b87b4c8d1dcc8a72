import { notFound } from "next/navigation";
import { getHogar } from "./hogar";

/** The stand-ins, in the demo. Elsewhere they and their pages do not exist. */
export function standins() {
  const { standins } = getHogar();
  return standins ?? notFound();
}

/** A stand-in sends the application its signed notice, as an outside service would. */
export async function sendNotice(
  to: "cards" | "disputes" | "readers",
  notice: { body: string; signature: string } | null,
): Promise<void> {
  if (notice)
    await fetch(new URL(`/api/notices/${to}`, `http://127.0.0.1:${process.env.PORT ?? 3000}`), {
      method: "POST",
      headers: { "content-type": "application/json", "x-signature": notice.signature },
      body: notice.body,
    });
}
