import { dateWords } from "@/core/time/words";
import type { ViewContext } from "@/kernel/operation";
import { unkeptPromises } from "@/modules/placing/unkept";
import type { NeedsPerson } from "./needs";

/** So many are named one by one. */
const mostShown = 12;

/** Promises that a change of set-up has touched, until each is settled. */
export function unkeptNeeds(context: ViewContext): NeedsPerson[] {
  const { n, first } = unkeptPromises(context, mostShown);
  const named = first.map(({ visitId, date, window, customer, title, technician, why, isPersonal }): NeedsPerson => ({
    kind: "unkept",
    words: `${customer} was promised ${dateWords(date)}, ${window}, and that cannot be kept as you are set up now`,
    detail: [title, technician, why].filter(Boolean).join(" · "),
    href: `/board?date=${date}&visit=${visitId}`,
    date,
    unkept: { visitId, mayGoToOthers: isPersonal },
  }));
  return n > first.length
    ? [
        ...named,
        {
          kind: "unkept",
          words: `${n - first.length} more promises cannot be kept as you are set up now`,
          detail: "They are named here as those before them are settled",
          href: `/board?date=${first.at(-1)!.date}`,
          date: first.at(-1)!.date,
          n: n - first.length,
        },
      ]
    : named;
}
