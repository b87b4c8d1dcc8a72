import type { Needs } from "@/kernel/module";
import type { NeedsPerson } from "@/kernel/needs";
import type { ViewContext } from "@/kernel/operation";
import { readIncoming } from "./entries";

const did = {
  booking: "has booked",
  request: "asks for",
  quote: "has our quote for",
  repeat: "comes back for",
} as const;
/** Of what waits in Incoming, so many are named one by one. */
const mostShown = 12;

/** What has come in and waits for us. */
function waiting(context: ViewContext): NeedsPerson[] {
  const first = { page: 0, size: mostShown, sort: "at", descending: false, search: "" };
  const { rows, forUs } = readIncoming(context, first, true);
  const named = rows.map((e): NeedsPerson => ({
    kind: "incoming",
    words: `${e.name} ${did[e.kind]} ${e.what}`,
    detail: [e.kind === "repeat" ? e.next : e.waits, e.when, e.handler && `${e.handler} is on it`]
      .filter(Boolean)
      .join(" · "),
    href: e.kind === "repeat" ? `/repeats?open=${e.id}` : `/incoming?open=${encodeURIComponent(e.key)}`,
  }));
  if (forUs <= mostShown) return named;
  const n = forUs - mostShown;
  return [...named, { kind: "incoming", words: `${n} more wait in Incoming`, detail: "", href: "/incoming", n }];
}

export const incomingNeeds: readonly Needs[] = [{ may: "customers.see", read: waiting }];
