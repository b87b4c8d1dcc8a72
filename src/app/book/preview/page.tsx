import { read } from "@/server/read";
import { Preview } from "./preview";

export const metadata = { title: "Preview", robots: "noindex" };

/** The front door as it is being set up, for whoever sets it up. */
export default async function PreviewPage() {
  await read("setup", {}, "/setup/front-door");
  return <Preview saved={await read("front-door", {}, "/setup/front-door")} />;
}
