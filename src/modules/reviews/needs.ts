import type { Needs } from "@/kernel/module";
import type { ViewContext } from "@/kernel/operation";
import type { NeedsPerson } from "@/kernel/needs";
import { openTroubles } from "./reviews";

const troubles = (context: ViewContext): NeedsPerson[] =>
  openTroubles(context).map(({ id, name, trouble }) => ({
    kind: "trouble",
    words: `${name} tells of trouble: “${trouble.slice(0, 120)}”`,
    detail: "Call or answer, and mark it as dealt with",
    href: `/messages?list=reviews&open=${id}`,
  }));

export const reviewNeeds: readonly Needs[] = [{ may: "board.change of all", read: troubles }];
