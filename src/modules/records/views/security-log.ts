import { securityKinds } from "@/core/problems";
import { input, OneOf, OrNull } from "@/kernel/inputs";
import { likePattern, pageInput, readPage } from "@/kernel/paging";
import { defineView } from "@/kernel/view";

/** The log of the lock, newest first: refused sign-ins, wrong codes, ended links, changed rights. */
export const securityLog = defineView({
  name: "security-log",
  access: "audit.see of all",
  input: input({ ...pageInput(["at"] as const), kind: OrNull(OneOf(securityKinds)) }),
  read(context, { kind, ...page }) {
    const { rows: ids, count } = readPage(context, page, {
      from: "FROM security_events e",
      where: `(@kind IS NULL OR e.kind = @kind) AND (@search IS NULL OR e.who LIKE @search ESCAPE '\\' OR e.words LIKE @search ESCAPE '\\' OR e.address LIKE @search ESCAPE '\\')`,
      id: "e.id",
      order: { at: "e.at" },
      params: { kind, search: likePattern(page.search) },
    });
    const row = context.sql<{ id: number; at: number; kind: string; who: string; words: string; address: string }>(
      "SELECT * FROM security_events WHERE id = ?",
    );
    return { count, timeZone: context.business.time_zone, rows: ids.map((id) => row.get(id)!) };
  },
});
