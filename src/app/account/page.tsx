import { Bring } from "@/server/live";
import { mustBeSignedIn } from "@/server/session";
import { LiveProvider } from "@/ui/live";
import { NotesProvider } from "@/ui/notes";
import { homeOf } from "@/registry/routes";
import { Account } from "./account";

export const metadata = { title: "Your account" };

export default async function AccountPage() {
  const actor = await mustBeSignedIn("/account");
  return (
    <NotesProvider>
      <LiveProvider>
        <Bring back="/account" views={[["account", {}]]}>
          <Account home={actor.mustEnrol ? null : homeOf(actor)} />
        </Bring>
      </LiveProvider>
    </NotesProvider>
  );
}
