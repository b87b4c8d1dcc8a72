import { read } from "@/app/server/read";
import { frontDoor } from "@/views/front-door";
import { setup } from "@/views/setup";
import { Preview } from "./preview";

export const metadata = { title: "Preview", robots: "noindex" };

/** The front door as it is being set up, for whoever sets it up. */
export default async function PreviewPage() {
  await read(setup, {}, "/setup/front-door");
  return <Preview saved={await read(frontDoor, {}, "/setup/front-door")} />;
}
