import { may, roles } from "@/core/people/permissions";
import { homeOf } from "@/registry/routes";
import { lastChange } from "@/kernel/meanwhile";
import { getHogar } from "@/server/hogar";
import { mustBeSignedIn } from "@/server/session";
import { readBusiness } from "@/store/business";
import { LiveProvider } from "@/ui/live";
import { NotesProvider } from "@/ui/notes";
import { redirect } from "next/navigation";
import type { ReactNode } from "react";
import { Office } from "./office";

export default async function OfficeLayout({ children }: { children: ReactNode }) {
  const actor = await mustBeSignedIn("/today");
  if (!may(actor, "office.see")) redirect(homeOf(actor));
  const hogar = getHogar();
  const business = readBusiness(hogar.store)!;
  return (
    <NotesProvider>
      <LiveProvider asOf={lastChange(hogar.store)}>
        <Office
          person={{ name: actor.name, role: roles[actor.role].name, permissions: [...actor.permissions] }}
          demo={business.demo_offset_ms === null ? null : { now: hogar.now(), timeZone: business.time_zone }}
        >
          {children}
        </Office>
      </LiveProvider>
    </NotesProvider>
  );
}
