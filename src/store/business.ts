import type { Store } from "./database";
import type { Rows } from "./rows";

export type BusinessRow = Rows["business"];

/** The business this installation serves; undefined before it is set up. */
export const readBusiness = ({ sql }: Pick<Store, "sql">): BusinessRow | undefined =>
  sql<BusinessRow>("SELECT * FROM business WHERE id = 1").get();
