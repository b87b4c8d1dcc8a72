import { mustBeAlone } from "@/core/catalogue/baskets";
import { Refusal } from "@/core/problems";
import type { ItemRow } from "./catalogue";

/** Refuses what cannot be booked together: work at several places, several days or a shared time beside something else, more seats than there are. */
export function mustGoTogether(items: readonly ItemRow[]): void {
  const [{ service: first, quantity }] = items as [ItemRow];
  const refuse = (at: string, sentence: string): never => {
    throw new Refusal("invalid-input", { fields: { [at]: sentence } });
  };
  const elsewhere = items.find(({ service }) => service.work_place !== first.work_place);
  if (elsewhere)
    refuse("/items", `${elsewhere.service.name} is done at another place than ${first.name}. Book it on its own.`);
  const long = mustBeAlone(items);
  if (long)
    refuse(
      "/items",
      `${long.service.name} ${long.service.seats ? "is at one time for several customers" : "takes several days"}. Book it on its own.`,
    );
  if (first.seats > 0 && quantity > first.seats)
    refuse("/items/0/quantity", `${first.name} has ${first.seats} seats at a time.`);
}
