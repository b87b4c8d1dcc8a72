import type { Access } from "@/core/people/permissions";
import type { Rows } from "@/store/rows";
import type { EffectKind } from "./effects";
import type { Law } from "./laws";
import type { NeedsPerson } from "./needs";
import type { Operation, ViewContext } from "./operation";
import type { ScheduledJob } from "./scheduled";
import type { View } from "./view";

/** A table of the schema, or the index by which customers are found. */
type Table = keyof Rows | "customer_search";

/** What needs a person, to whoever may know of it. */
export interface Needs {
  may: Access;
  read: (context: ViewContext) => NeedsPerson[];
}

/** A subject of the business: everything of it that others loop over. Its folder holds the rest. */
export interface Module {
  name: string;
  /** The tables that it alone writes. */
  owns: readonly Table[];
  /* eslint-disable @typescript-eslint/no-explicit-any -- each has an input and an output of its own */
  operations?: Readonly<Record<string, Operation<any, any>>>;
  views?: Readonly<Record<string, View<any, any>>>;
  /* eslint-enable @typescript-eslint/no-explicit-any */
  /** What it has done outside, by kind as it stands in the outbox. */
  effects?: Readonly<Record<string, EffectKind>>;
  jobs?: readonly ScheduledJob[];
  needs?: readonly Needs[];
  laws?: readonly Law[];
  /** Lets go of what is kept no longer, `most` rows at the most, in one transaction; answers how many went. */
  prune?: (context: ViewContext, most: number) => number;
}

export const defineModule = <const M extends Module>(module: M): M => module;
