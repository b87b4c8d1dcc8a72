import { bankLinesKind } from "./bank-kind";
import { extrasKind, pricesKind, servicesKind } from "./catalogue-kinds";
import { customersKind } from "./customers-kind";
import { repeatsKind } from "./repeats-kind";
import type { Kinds } from "./kind";

/** What the one machine imports. */
export const kinds: Kinds = {
  customers: customersKind,
  services: servicesKind,
  extras: extrasKind,
  prices: pricesKind,
  repeats: repeatsKind,
  "bank lines": bankLinesKind,
};
