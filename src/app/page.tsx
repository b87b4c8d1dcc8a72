import { homeOf } from "@/registry/routes";
import { signedIn } from "@/server/session";
import { redirect } from "next/navigation";

/** The office for those who are signed in; technicians go to their day, everybody else to the front door. */
export default async function Home() {
  const actor = await signedIn();
  redirect(actor ? homeOf(actor) : "/book");
}
