import { type Checked, checkLaws, type Law } from "@/kernel/laws";
import type { ViewContext } from "@/kernel/operation";
import { asRecorded } from "@/modules/records/recorded";
import { modules } from "./modules";

type Sql = ViewContext["sql"];

/** What must always be true of the data, subject by subject; each finds nothing that breaks it. */
export const lawsOf = (sql: Sql): Law[] => [...modules.flatMap(({ laws = [] }) => laws), ...asRecorded(sql)];

/** Looks at one law after the other, until one is broken. */
export const checkAll = (sql: Sql): Generator<Checked> => checkLaws(sql, lawsOf(sql));

/** The first law that is broken, and by what; null where all hold. */
export function firstBroken(sql: Sql): Checked["broken"] {
  for (const { broken } of checkAll(sql)) if (broken) return broken;
  return null;
}
